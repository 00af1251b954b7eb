import { Application, isAlive } from './support/application';
import { TIMEOUT } from './support/patience';

/** Whatever is killed in the middle of a stream of edits: every acknowledged edit is there afterwards. */

const PATH = '/api/systems/quayside/documents/components/text-field.component.json';
const EDITS_BEFORE_KILL = 40;

interface Document {
  readonly rules: readonly { readonly id: string }[];
}

async function read(address: string): Promise<{ document: Document; etag: string }> {
  const response = await fetch(address + PATH);
  return { document: (await response.json()) as Document, etag: response.headers.get('etag')! };
}

/** Adds one rule after another until the server no longer answers; gives the ids that were acknowledged. */
async function stream(
  address: string,
  acknowledged: string[],
  onCount: (count: number) => void,
): Promise<void> {
  let { etag } = await read(address);
  for (let number = 0; number < 5000; number++) {
    const id = `stream-${number}`;
    const value = { id, when: {}, set: { frame: { opacity: String((number % 90) / 100) } } };
    try {
      const response = await fetch(address + PATH, {
        method: 'PATCH',
        headers: { 'Content-Type': 'application/json-patch+json', 'If-Match': etag, 'Idempotency-Key': id },
        body: JSON.stringify([{ op: 'add', path: '/rules/-', value }]),
      });
      if (response.status !== 200) return;
      etag = response.headers.get('etag')!;
      await response.text();
    } catch {
      return;
    }
    acknowledged.push(id);
    onCount(acknowledged.length);
  }
}

async function survives(kill: (application: Application) => void): Promise<void> {
  const application = new Application();
  try {
    const address = await application.start();
    const before = application.processes();
    const acknowledged: string[] = [];
    await stream(address, acknowledged, count => {
      if (count === EDITS_BEFORE_KILL) kill(application);
    });
    expect(acknowledged.length).toBeGreaterThanOrEqual(EDITS_BEFORE_KILL);
    // The start notices, says so and ends with everything it started.
    expect(await application.ended()).not.toBe(0);
    expect([before.server, before.database].filter(isAlive)).toEqual([]);
    const again = await application.start();
    const { document } = await read(again);
    const ids = document.rules.map(rule => rule.id).filter(id => id.startsWith('stream-'));
    // One more may have been stored whose acknowledgement was lost; none less, none twice, in order.
    expect(ids.slice(0, acknowledged.length)).toEqual(acknowledged);
    expect(ids.length - acknowledged.length).toBeLessThanOrEqual(1);
    expect(new Set(ids).size).toBe(ids.length);
  } finally {
    await application.remove();
  }
}

test(
  'the application killed',
  () => survives(application => process.kill(application.processes().server, 'SIGKILL')),
  TIMEOUT,
);

test(
  'the database killed',
  () => survives(application => process.kill(application.processes().database, 'SIGKILL')),
  TIMEOUT,
);

test(
  'the start itself killed: the next one clears away what is left and finds everything',
  async () => {
    const application = new Application();
    try {
      await application.start();
      const { pid, server } = application.processes();
      process.kill(pid, 'SIGKILL');
      await application.ended();
      const address = await application.start();
      expect(application.processes().server).not.toBe(server);
      expect((await read(address)).document.rules.length).toBeGreaterThan(10);
    } finally {
      await application.remove();
    }
  },
  TIMEOUT,
);
