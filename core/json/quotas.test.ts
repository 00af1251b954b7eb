import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { QUOTAS } from './quotas';

test('the page on limits says what the table says', () => {
  const page = readFileSync(join(__dirname, '../../docs/limits.md'), 'utf8');
  const told = [...page.matchAll(/^\| `(\w+)` \| ([\d,]+) \|/gm)].map(([, name, amount]) => [
    name!,
    Number(amount!.replaceAll(',', '')),
  ]);
  expect(Object.fromEntries(told)).toEqual(QUOTAS);
});
