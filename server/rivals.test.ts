import { setTimeout } from 'node:timers/promises';
import { givenWay, noteFound, noteWritten } from './source/worker/rivals';

/** Who writes through other nodes of a cluster is given room; nobody else waits for anything. */

jest.mock('node:timers/promises', () => ({ setTimeout: jest.fn(async () => undefined) }));

let now = 0;
beforeEach(() => {
  jest.mocked(setTimeout).mockClear();
  jest.spyOn(Math, 'random').mockReturnValue(0.5);
  jest.spyOn(performance, 'now').mockImplementation(() => now);
});
afterEach(() => jest.restoreAllMocks());

/** How long whoever took so many ms pauses. */
async function paused(systemId: string, ms: number): Promise<number> {
  jest.mocked(setTimeout).mockClear();
  await givenWay(systemId, ms);
  return jest.mocked(setTimeout).mock.calls[0]?.[0] ?? 0;
}

test('nobody waits who writes alone', async () => {
  noteFound('alone', 4);
  noteWritten('alone', 5);
  noteFound('alone', 5);
  expect([await paused('alone', 200), await paused('never written', 200)]).toEqual([0, 0]);
});

test('whoever finds an edit that was not written here pauses for as long as that took, for a while', async () => {
  noteWritten('both', 5);
  noteFound('both', 7);
  expect(await paused('both', 200)).toBe(200);
  // Never longer than somebody would notice.
  expect(await paused('both', 9_000)).toBe(300);
  noteWritten('both', 8);
  expect(await paused('both', 200)).toBe(200);
  now += 5_000;
  expect(await paused('both', 200)).toBe(0);
});
