import { demoDocuments } from '@periwinkle/core/test/demo';
import { writeJson } from '@periwinkle/core/json/json-text';
import { documentsIn, glanceAt } from './glance';
import { Glances } from './glances';

/** The shelf tells what is in systems without waiting for any that cannot be looked at in time. */

const SOME = { fields: 1, tokens: 2, combinations: 3n, text: null };

test('a system that takes too long is given up with whoever looked at it, and the next is looked at', async () => {
  const [made, ended]: [string[], string[]] = [[], []];
  const glances = new Glances(() => {
    const name = `looker ${made.length}`;
    made.push(name);
    return {
      at: address => (address === 'endless' ? new Promise(() => {}) : Promise.resolve(SOME)),
      end: () => void ended.push(name),
    };
  }, 50);
  const all = ['one', 'endless', 'two', 'three'].map(address => glances.at(address));
  expect(await Promise.all(all)).toEqual([SOME, null, SOME, SOME]);
  expect([made, ended]).toEqual([['looker 0', 'looker 1'], ['looker 0']]);
});

test('one that cannot be read is told to who asked for it alone', async () => {
  const glances = new Glances(
    () => ({
      at: address => (address === 'broken' ? Promise.reject(new Error('no')) : Promise.resolve(SOME)),
      end: () => {},
    }),
    1000,
  );
  const [broken, other] = [glances.at('broken'), glances.at('other')];
  await expect(broken).rejects.toThrow('no');
  expect(await other).toBe(SOME);
});

const whole = (documents: ReadonlyMap<string, unknown>): string =>
  writeJson({ documents: [...documents].map(([path, body]) => ({ path, revision: 1, body })) });

test('what is counted is what is there, and what is large is not drawn', () => {
  const text = whole(demoDocuments());
  expect(documentsIn(text).size).toBe(demoDocuments().size);
  const glance = glanceAt(text);
  expect(glance).toMatchObject({ fields: 17, tokens: expect.any(Number) as number });
  expect(glance.combinations).toBeGreaterThan(100_000n);
  const large = new Map(demoDocuments()).set('guide/large.md', 'words '.repeat(600_000));
  expect(glanceAt(whole(large)).text).toBeNull();
});
