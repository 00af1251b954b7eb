import { asked } from './asking';

/** A server that has too much to do is asked again; any other answer is the answer. */

const problem = (kind: string, status: number): Response =>
  new Response(JSON.stringify({ type: `urn:periwinkle:problem:${kind}`, detail: kind }), {
    status,
    headers: { 'Retry-After': '3' },
  });

function answering(...answers: (() => Response)[]): jest.Mock {
  const mock = jest.fn(() => Promise.resolve((answers.length > 1 ? answers.shift()! : answers[0]!)()));
  globalThis.fetch = mock as unknown as typeof fetch;
  return mock;
}
const before = globalThis.fetch;
beforeEach(() => jest.useFakeTimers());
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = before;
});

test('what was not begun is asked again, as late as the server says', async () => {
  const mock = answering(
    () => problem('busy', 503),
    () => new Response('{"id":"a"}'),
  );
  const answer = asked('/api/systems', { method: 'POST', body: '{}' });
  await jest.advanceTimersByTimeAsync(2_900);
  expect(mock).toHaveBeenCalledTimes(1);
  await jest.advanceTimersByTimeAsync(200);
  expect(await answer).toMatchObject({ ok: true, text: '{"id":"a"}' });
  expect(mock.mock.calls[1]).toEqual([
    '/api/systems',
    expect.objectContaining({ method: 'POST', body: '{}' }),
  ]);
});

test.each([
  ['interrupted', 503],
  ['no-database', 503],
  ['busy', 500],
])('%s with %i may have been begun, and is not', async (kind, status) => {
  const mock = answering(() => problem(kind, status));
  expect(await asked('/api/systems', {})).toMatchObject({ ok: false, status });
  expect(mock).toHaveBeenCalledTimes(1);
});

test('what is no problem document is the answer', async () => {
  answering(() => new Response('<html>', { status: 503 }));
  expect(await asked('/api/systems', {})).toMatchObject({ status: 503, text: '<html>' });
});

test('a server that stays busy is left alone after a while', async () => {
  const mock = answering(() => problem('busy', 503));
  const answer = asked('/api/systems', {});
  await jest.advanceTimersByTimeAsync(60_000);
  expect(await answer).toMatchObject({ status: 503 });
  expect(mock).toHaveBeenCalledTimes(8);
});

test('a line that died is given up, later where much is sent', async () => {
  const dead = jest.fn(
    (_: string, { signal }: RequestInit) =>
      new Promise((__, reject) => signal!.addEventListener('abort', () => reject(new Error('ended')))),
  );
  globalThis.fetch = dead as unknown as typeof fetch;
  const ends = async (body: string, ms: number): Promise<string> => {
    const end = asked('/api/systems', { method: 'POST', body }).then(
      () => 'answered',
      () => 'given up',
    );
    const later = new Promise<string>(resolve => setTimeout(() => resolve('waits'), ms));
    await jest.advanceTimersByTimeAsync(ms);
    return Promise.race([end, later]);
  };
  expect(await ends('{}', 59_000)).toBe('waits');
  expect(await ends('{}', 61_000)).toBe('given up');
  expect(await ends('x'.repeat(1_000_000), 61_000)).toBe('waits');
});
