import { once } from 'node:events';
import { createServer } from 'node:net';

/** Systems give out ports above these by themselves, so that one which is let go for a while may be somebody else's by then. */
const FIRST = 20_000;
const COUNT = 10_000;

/** A port that nobody listens on, and that nobody gets who does not ask for it. */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = FIRST + Math.floor(Math.random() * COUNT);
    const server = createServer().listen(port, '127.0.0.1');
    try {
      await once(server, 'listening');
    } catch {
      continue;
    }
    server.close();
    await once(server, 'close');
    return port;
  }
}
