// Which tests run when. `docs/tests.md` explains it; how often random tests try stands in `core/test/runs.ts`.

/** Parts of paths of what needs minutes, and runs in depth only. */
const IN_DEPTH_ONLY = [
  'e2e/by-hand',
  'e2e/cluster',
  'e2e/large-component',
  'e2e/measures',
  'e2e/random-agreement',
  'server/slow-clients',
];

/** Parts of paths of what takes long, and runs when a change is about to land (`npm run test:rest`). */
const NOT_EACH_TIME = [
  'e2e/accessibility',
  'e2e/agreement',
  'e2e/bad-lines',
  'e2e/behaviour-oracle',
  'e2e/behaviour.test',
  'e2e/behind-a-proxy',
  'e2e/database-away',
  'e2e/derived',
  'e2e/four-windows',
  'e2e/geometry.test',
  'e2e/hostile-names',
  'e2e/hostile-pages',
  'e2e/killed',
  'e2e/making',
  'e2e/network-name',
  'e2e/outage',
  'e2e/plate',
  'e2e/restructuring-together',
  'e2e/rules-sheet',
  'e2e/same-everywhere',
  'e2e/shelf',
  'e2e/starting',
  'e2e/story',
  'e2e/tokens-screen',
  'e2e/trials',
  'e2e/two-servers',
  'e2e/windows.test',
  'server/history',
  'server/limits',
  'server/many-documents',
  'server/openapi',
  'server/placing',
  'server/too-heavy',
];

/** What runs in depth, in turns of some ten minutes on two processors; a file that no turn names is in the last. */
export const TURNS = [
  ['core/behaviour'],
  ['core/cascade', 'core/derivation', 'core/components', 'core/space', 'core/css', 'core/layout'],
  ['core/', 'web/', 'cli/'],
  ['e2e/agreement', 'e2e/nested-agreement', 'e2e/random-agreement'],
  ['e2e/geometry', 'e2e/random-geometry', 'e2e/behaviour-oracle', 'e2e/four-windows'],
  [
    'e2e/by-hand',
    'e2e/cluster',
    'e2e/large-component',
    'e2e/measures',
    'e2e/starting',
    'e2e/killed',
    'e2e/two-servers',
  ],
  ['e2e/', 'server/', 'scripts/'],
];

/**
 * What is run: parts of paths that a file holds (all where there are none), and others that it must not. `words` are of whoever calls;
 * `turn` counts from 1, `null` where all of a kind is meant.
 */
export function planOf({ isDeep, isRest, turn, words }) {
  if (turn !== null) return { patterns: TURNS[turn - 1], without: TURNS.slice(0, turn - 1).flat() };
  if (isRest) return { patterns: NOT_EACH_TIME, without: IN_DEPTH_ONLY };
  const isAll = isDeep || words.length > 0;
  return { patterns: words, without: isAll ? [] : [...NOT_EACH_TIME, ...IN_DEPTH_ONLY] };
}
