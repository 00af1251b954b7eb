import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { extname, join } from 'node:path';

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.js': 'text/javascript; charset=utf-8',
};

/** A folder of outputs as a web server shows it: modules are not taken from files. */
export async function serveFolder(
  folder: string,
): Promise<{ readonly address: string; readonly close: () => void }> {
  const server = createServer(({ url = '/' }, response) => {
    const path = join(folder, new URL(url, 'http://here').pathname);
    if (!existsSync(path)) return void response.writeHead(404).end();
    response.writeHead(200, { 'Content-Type': TYPES[extname(path)] ?? 'text/plain' }).end(readFileSync(path));
  });
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return { address: `http://127.0.0.1:${port}`, close: () => server.close() };
}
