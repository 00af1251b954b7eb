import { expose } from 'comlink';
import { glanceAt, type Glance } from './glance';

/** Reads and counts systems beside the page, which goes on whatever they hold. */
const api = {
  async at(address: string): Promise<Glance> {
    const response = await fetch(address);
    if (!response.ok) throw new Error(`The server answered ${response.status}.`);
    return glanceAt(await response.text());
  },
};
export type GlanceApi = typeof api;

expose(api);
