/** What `startCluster` gives; see `cluster.mjs`. */
export interface ClusterNode {
  readonly url: string;
  readonly kill: () => Promise<void>;
  readonly start: () => Promise<void>;
  readonly cutOff: () => Promise<unknown>;
  readonly connect: () => Promise<void>;
  readonly fallBehind: () => Promise<() => Promise<void>>;
}
export interface Cluster {
  readonly nodes: readonly ClusterNode[];
  readonly stop: () => Promise<void>;
}
export function hasGalera(): boolean;
export function startCluster(folder: string, count: number): Promise<Cluster>;
