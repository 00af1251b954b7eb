import { randomly } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { ComponentDocument } from '@periwinkle/core/documents/component-document';
import type { ConditionDocument } from '@periwinkle/core/documents/condition-document';
import { compileComponent } from '@periwinkle/core/components/compile-component';
import { isAllowed, type Plain } from '@periwinkle/core/test/naive';
import { NaiveAnswers } from '@periwinkle/core/test/naive-answers';
import { randomSystem } from '@periwinkle/core/test/random-system';
import { run } from './source/periwinkle';

/** `contested`, `cover` and `count` in their written formats, on random systems as folders. */

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'periwinkle-cli-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

function write(documents: ReadonlyMap<string, unknown>): void {
  for (const [path, document] of documents) {
    const file = join(folder, path);
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, JSON.stringify(document));
  }
}

function answer(...args: string[]): never {
  let out = '';
  const status = run([args[0]!, folder, ...args.slice(1), '--json'], {
    out: text => (out += text),
    err: () => undefined,
  });
  expect(status).toBe(0);
  return JSON.parse(out) as never;
}

const sound = (document: ComponentDocument): boolean =>
  compileComponent(document).problems.every(problem => problem.severity !== 'error');

interface PrintedContest {
  property: string;
  rules: [string, string];
  winner: string;
  regions: Record<string, string[]>[];
  combinations: string;
}

test('contested prints each contest with exact regions that hold what the plain walk finds', () => {
  fc.assert(
    fc.property(randomSystem, random => {
      if (!sound(random.component)) return;
      write(random.documents);
      const naive = new NaiveAnswers(random);
      const expected = naive.contested();
      const printed: PrintedContest[] = answer('contested', '--component', 'specimen');
      expect(printed.map(each => `${each.property} ${each.rules.join(' ')}`).sort()).toEqual(
        [...expected.keys()].sort(),
      );
      for (const { property, rules, winner, regions, combinations } of printed) {
        const where = expected.get(`${property} ${rules.join(' ')}`)!;
        expect(winner).toBe(rules[1]);
        expect(combinations).toBe(String(where.length));
        const holds = (combination: Plain): boolean =>
          regions.some(region =>
            Object.entries(region).every(([axis, values]) => values.includes(combination[axis]!)),
          );
        expect(naive.allowed.filter(holds)).toEqual(where);
      }
    }),
    randomly('contested on the command line'),
  );
}, 60_000);

test('cover prints whole combinations that can be, and count their number', () => {
  fc.assert(
    fc.property(randomSystem, fc.constantFrom('2', '3'), (random, strength) => {
      if (!sound(random.component)) return;
      write(random.documents);
      const naive = new NaiveAnswers(random);
      const rows: Plain[] = answer('cover', '--component', 'specimen', '--strength', strength);
      const axes = (random.component.axes ?? []).map(axis => axis.id);
      for (const row of rows) {
        expect(Object.keys(row)).toEqual(axes);
        expect(isAllowed(random.component, row)).toBe(true);
      }
      for (const axis of axes) {
        const possible = new Set(naive.allowed.map(each => each[axis]));
        expect(new Set(rows.map(row => row[axis]))).toEqual(possible);
      }
      expect(answer('count')).toEqual({
        components: [{ id: 'specimen', combinations: String(naive.allowed.length) }],
        contexts: 2,
        total: String(2 * naive.allowed.length),
      });
    }),
    randomly('covers on the command line'),
  );
}, 60_000);

test('a decision takes a contest off the list; regions name every rung of a ladder', () => {
  const component = {
    format: 'periwinkle-component/1',
    id: 'specimen',
    anatomy: { part: 'root', kind: 'stack' },
    axes: [
      { id: 'pointer', kind: 'state' },
      { id: 'validity', kind: 'state' },
    ],
    rules: [
      { id: 'over', when: { pointer: 'over' }, set: { root: { opacity: '1' } } },
      {
        id: 'invalid',
        when: { validity: 'invalid' } as ConditionDocument,
        set: { root: { opacity: '0.5' } },
      },
    ],
  };
  const system = { format: 'periwinkle-system/1', id: 's', title: 'S', prefix: 'p' };
  write(
    new Map<string, unknown>([
      ['system.json', system],
      ['components/specimen.component.json', component],
    ]),
  );
  expect(answer('contested', '--component', 'specimen')).toEqual([
    {
      property: 'root.opacity',
      rules: ['over', 'invalid'],
      winner: 'invalid',
      regions: [{ pointer: ['over', 'down'], validity: ['invalid'] }],
      combinations: '2',
    },
  ]);
  const decisions = [{ rules: ['over', 'invalid'], because: 'A mistake must be seen.' }];
  write(new Map([['components/specimen.component.json', { ...component, decisions }]]));
  expect(answer('contested', '--component', 'specimen')).toEqual([]);
});
