import { expose } from 'comlink';
import { glanceAt, type Glance } from './glance';

/** Reads and counts systems beside the page, which goes on whatever they hold. */
const api = {
  async at(address: string): Promise<Glance | null> {
    const response = await fetch(address);
    return response.ok ? glanceAt(await response.text()) : null;
  },
};
export type GlanceApi = typeof api;

expose(api);
