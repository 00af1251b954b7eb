/**
 * How often each random test tries: every day, and in depth. The one place for it; `docs/tests.md` tells which runs where. Looks in a browser: per cent of what the
 * test names. */
const RUNS = {
  'JSON text': [300, 1000],
  'nested systems': [60, 1000],
  'nested and derived systems': [30, 400],
  'derived systems': [40, 1000],
  patterns: [100, 300],
  acts: [200, 1500],
  'acts again': [40, 200],
  reach: [4, 130],
  'reach of small systems': [2, 130],
  damage: [8, 60],
  'readers of text': [2000, 20_000],
  'check calls': [60, 200],
  circles: [60, 400],
  wounds: [15, 200],
  callouts: [10, 70],
  restructuring: [40, 500],
  formulas: [100, 200],
  'lean stylesheets': [20, 150],
  'nested contexts': [200, 2000],
  'hostile texts': [60, 600],
  'texts in all places': [1, 10],
  'texts replaced': [2, 40],
  limits: [300, 2000],
  spaces: [100, 300],
  'token changes': [100, 500],
  'context changes': [25, 100],
  relocating: [150, 600],
  'rebasing over edits': [400, 3000],
  undo: [400, 3000],
  rebasing: [150, 600],
  differences: [80, 400],
  resolution: [30, 150],
  engine: [40, 2000],
  'covering sets': [80, 2000],
  windows: [300, 500],
  archives: [200, 2000],
  Markdown: [200, 2000],
  'contested on the command line': [20, 150],
  'covers on the command line': [10, 60],
  'looks in a browser': [6, 100],
  'nested looks in a browser': [8, 100],
  'four windows': [1, 20],
  'acts in a browser': [4, 105],
  'trees in a browser': [60, 2000],
  'places of the demo in a browser': [2, 16],
  'looks of the demo in a browser': [12, 100],
} as const satisfies Record<string, readonly [daily: number, deep: number]>;

export type RandomTest = keyof typeof RUNS;

/** Whether tests run in depth (`npm run test:deep`). */
export const IS_DEEP = process.env['PERIWINKLE_DEPTH'] === 'deep';

/** How often a random test tries; any other number by PERIWINKLE_RUNS. */
export const runsOf = (name: RandomTest): number =>
  Number(process.env['PERIWINKLE_RUNS'] ?? RUNS[name][IS_DEEP ? 1 : 0]);

/** A new seed for each run, printed so that a run can be repeated with PERIWINKLE_SEED. */
export function freshSeed(name: string): number {
  const seed = Number(process.env['PERIWINKLE_SEED'] ?? (Date.now() ^ (process.pid << 8)) & 0x7fffffff);
  process.stderr.write(`${name}: PERIWINKLE_SEED=${seed}\n`);
  return seed;
}

/** Both, as fast-check takes them. */
export const randomly = (name: RandomTest): { readonly numRuns: number; readonly seed: number } => ({
  numRuns: runsOf(name),
  seed: freshSeed(name),
});
