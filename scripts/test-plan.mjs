// Which tests run when. `docs/tests.md` explains it; how often random tests try stands in `core/test/runs.ts`.

/** Parts of paths of what needs minutes, and runs in depth only. */
export const IN_DEPTH_ONLY = [
  'e2e/by-hand',
  'e2e/cluster',
  'e2e/large-component',
  'e2e/measures',
  'e2e/random-agreement',
  'server/slow-clients',
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
 * What a turn runs: parts of paths that a file holds, and others that it must not, since an earlier turn has them.
 * `turn` counts from 1.
 */
export const turnOf = turn => ({ patterns: TURNS[turn - 1], without: TURNS.slice(0, turn - 1).flat() });
