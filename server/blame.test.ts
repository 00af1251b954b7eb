import { startTestServer, type TestServer } from './test/test-server';
import { forRequest, watchedBy, watchedMemory } from './source/worker/computing';
import { storeEdit } from './source/worker/edits';
import type { StoredEdit } from './source/storage/edit-rows';

/** What is computed counts to the request that asked for it, in whose turn soever it is stored; what several come to together, to no single one. */

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const GUIDES = ['one', 'two', 'three', 'four', 'five', 'six'].map(name => `guide/${name}.md`);

/** Stores a new text each, all at once; the second has no place. Gives what came of each and for whom was computed. */
async function storedAtOnce() {
  const memory = watchedMemory();
  watchedBy(memory);
  const blamed: number[] = [];
  const store = jest.spyOn(Atomics, 'store') as unknown as jest.SpyInstance<
    number,
    [Int32Array, number, number]
  >;
  store.mockImplementation((array, index, value) => {
    if (array === memory && index === 1) blamed.push(value);
    return (array[index] = value);
  });
  const told = await Promise.all(
    GUIDES.map((path, index) =>
      forRequest<readonly StoredEdit[]>(index + 1, false, () =>
        storeEdit(
          server.database.db,
          {
            ...{ systemId: 'quayside', changeId: path, label: path, author: 'ann', isPlaced: true },
            parts: [
              {
                path: index === 1 ? 'guide/nowhere.md' : path,
                revision: 0,
                editKey: path,
                patch:
                  index === 1
                    ? [{ op: 'add', path: '/0', value: 'x' }]
                    : [{ op: 'replace', path: '', value: path }],
              },
            ],
          },
          false,
        ),
      ),
    ),
  );
  store.mockRestore();
  return { told, blamed };
}

test('each edit has its own computing, those that are checked together share it', async () => {
  const { told, blamed } = await storedAtOnce();
  expect(told.map(({ outcome }) => outcome.status)).toEqual([
    'fulfilled',
    'rejected',
    ...GUIDES.slice(2).map(() => 'fulfilled'),
  ]);
  expect(new Set(blamed)).toEqual(new Set([0, 1, 2, 3, 4, 5, 6]));
  for (const { ms } of told) expect(ms).toBeGreaterThan(0);
});
