import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Application } from '../e2e/support/application';

/**
 * Starts that are killed at any moment, first starts among them, while somebody edits as soon as there is an address: what was acknowledged
 * must be there, once. And many starts at once. `PERIWINKLE_KILLS` and `PERIWINKLE_TENFOLD` say how
 * often.
 */

const KILLS = Number(process.env['PERIWINKLE_KILLS'] ?? 30);
const TENFOLD = Number(process.env['PERIWINKLE_TENFOLD'] ?? 10);
/** A start takes about half of it; then somebody edits. */
const MOMENTS_MS = 5000;
const PATH = 'guide/kept.md';

const print = (line: string): void => void process.stdout.write(`${line}\n`);
const folder = (): string => mkdtempSync(join(tmpdir(), 'periwinkle-starting-'));
const systemsOf = async (address: string): Promise<number> =>
  ((await (await fetch(`${address}/api/systems`)).json()) as unknown[]).length;

interface Edit {
  readonly id: number;
  readonly editKey: string;
}

/** Edits one after another until nobody answers; gives the keys of those that were acknowledged. */
async function editing(address: string, name: string): Promise<string[]> {
  const kept: string[] = [];
  try {
    for (let turn = 0; ; turn++) {
      const at = await fetch(`${address}/api/systems/quayside/documents/${PATH}`);
      const revision = at.ok ? Number(at.headers.get('etag')!.slice(1, -1)) : 0;
      await at.text();
      const key = `${name}-${turn}`;
      const parts = [{ path: PATH, revision, key, patch: [{ op: 'replace', path: '', value: key }] }];
      const response = await fetch(`${address}/api/systems/quayside/edits`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ parts }),
      });
      await response.text();
      if (response.ok) kept.push(key);
    }
  } catch {
    return kept;
  }
}

async function storedEdits(address: string): Promise<Edit[]> {
  const all: Edit[] = [];
  for (;;) {
    const response = await fetch(`${address}/api/systems/quayside/edits?after=${all.at(-1)?.id ?? 0}`);
    const more = (await response.json()) as Edit[];
    if (more.length === 0) return all;
    all.push(...more);
  }
}

let failed = 0;
let wrong = 0;
let acknowledged = 0;
let lost = 0;
let doubled = 0;
for (let round = 0; round < KILLS; round++) {
  // A new folder every third time: a first start is what is killed then.
  const app = new Application(folder());
  const kills = 1 + (round % 3);
  const kept: string[] = [];
  for (let kill = 0; kill < kills; kill++) {
    const edited = app.start().then(
      address => editing(address, `k${round}-${kill}`),
      () => [],
    );
    await new Promise(resolve => setTimeout(resolve, Math.random() * MOMENTS_MS));
    await app.stop('SIGKILL');
    kept.push(...(await edited));
  }
  try {
    const address = await app.start();
    if ((await systemsOf(address)) !== 1) wrong++;
    const stored = await storedEdits(address);
    const keys = stored.map(({ editKey }) => editKey);
    acknowledged += kept.length;
    lost += kept.filter(key => !keys.includes(key)).length;
    doubled += keys.length - new Set(keys).size + stored.filter(({ id }, index) => id !== index + 1).length;
  } catch (error) {
    failed++;
    print(String(error));
  }
  await app.remove();
}
print(`${KILLS} starts after kills at any moment: ${failed} failed, ${wrong} with other than one system`);
print(`${acknowledged} edits acknowledged before a kill: ${lost} lost, ${doubled} doubled or out of order`);

let none = 0;
let several = 0;
let unclear = 0;
for (let round = 0; round < TENFOLD; round++) {
  const first = new Application(folder());
  const all = [first, ...Array.from({ length: 9 }, () => new Application(first.folder))];
  const outcomes = await Promise.allSettled(all.map(each => each.start()));
  const running = outcomes.filter(({ status }) => status === 'fulfilled').length;
  if (running === 0) none++;
  if (running > 1) several++;
  unclear += outcomes.filter(
    each => each.status === 'rejected' && !String(each.reason).includes('is running already'),
  ).length;
  await Promise.all(all.map(each => each.stop()));
  rmSync(first.folder, { recursive: true, force: true, maxRetries: 5 });
}
print(
  `${TENFOLD} times ten starts at once: ${none} times none ran, ${several} times several, ${unclear} ended otherwise than by saying so`,
);
