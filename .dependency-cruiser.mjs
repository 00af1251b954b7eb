// Which modules may use which: nothing leads up, nothing leads back to itself, not by types alone either.

/** Rooms of the core, from the ground up: each may use those before it and itself. `docs/architecture.md` says what each knows. */
const CORE_LAYERS = [
  ['json'],
  ['text'],
  ['patch'],
  ['documents'],
  ['tokens', 'space'],
  ['css'],
  ['derivation'],
  ['components'],
  ['cascade'],
  ['render'],
  ['output'],
  ['behaviour'],
  ['runtime', 'layout'],
  ['checks'],
  ['edits', 'trials'],
];

const PACKAGES = ['server', 'web', 'cli'];

const TEST = '\\.test\\.ts$|/test/';

const layerRules = CORE_LAYERS.flatMap((layer, height) =>
  layer.map(room => {
    const above = [...CORE_LAYERS.slice(height + 1).flat(), ...layer.filter(other => other !== room)];
    return {
      name: `core/${room} lies at the ground of what it would use`,
      severity: 'error',
      from: { path: `^core/${room}/`, pathNot: TEST },
      to: { path: `^core/(${above.join('|')})/` },
    };
  }),
);

const packageRules = PACKAGES.map(name => ({
  name: `${name} uses the core and the protocol alone`,
  severity: 'error',
  from: { path: `^${name}/` },
  to: { path: `^(${PACKAGES.filter(other => other !== name).join('|')})/` },
}));

export default {
  forbidden: [
    {
      name: 'the protocol uses the core alone',
      severity: 'error',
      from: { path: '^protocol/' },
      to: { pathNot: '^(core|protocol)/' },
    },
    {
      name: 'no circle',
      comment: 'What two modules share lies below both.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'the core knows no interface and no machine',
      severity: 'error',
      from: { path: '^core/', pathNot: TEST },
      to: {
        path: '^(protocol|server|web|cli|core/test)/|node_modules/(react|express)',
        dependencyTypesNot: ['npm-dev'],
      },
    },
    {
      name: 'the core does without Node',
      severity: 'error',
      from: { path: '^core/', pathNot: TEST },
      to: { dependencyTypes: ['core'] },
    },
    ...layerRules,
    ...packageRules,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
  },
};
