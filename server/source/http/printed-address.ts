/** Addresses that stand for all of a machine, with one of them that can be visited. */
const EVERY: Readonly<Record<string, string>> = { '0.0.0.0': '127.0.0.1', '::': '::1' };

/** The address at which a browser on this machine finds a server that listens on a host. */
export function printedAddress(host: string, port: number): string {
  const visited = EVERY[host] ?? host;
  return `http://${visited.includes(':') ? `[${visited}]` : visited}:${port}/`;
}
