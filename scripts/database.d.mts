/** What `startDatabase` gives; see `database.mjs`. */
export interface RunningDatabase {
  readonly url: string;
  readonly pid: number;
  readonly exited: Promise<unknown>;
  readonly stop: () => Promise<void>;
}
export function startDatabase(folder: string): Promise<RunningDatabase>;
