import { inTurn } from './source/worker/turns';

/** Work on one thing waits for its turn; a failure ends nobody else's. */

test('one after another on the same, side by side on others, also after failures', async () => {
  const told: string[] = [];
  let free: () => void = () => {};
  const held = new Promise<void>(resolve => (free = resolve));
  const first = inTurn('a', async () => {
    await held;
    told.push('first');
    throw new Error('no');
  });
  const second = inTurn('a', async () => {
    told.push('second');
    return 2;
  });
  expect(await inTurn('b', async () => told.push('other'))).toBe(1);
  free();
  await expect(first).rejects.toThrow('no');
  expect(await second).toBe(2);
  expect(told).toEqual(['other', 'first', 'second']);
  expect(await inTurn('a', async () => 'again')).toBe('again');
});
