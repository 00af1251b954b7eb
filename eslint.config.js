import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/**
 * Folders of the core, from the bottom up: each may use those before it and itself. `docs/architecture.md` explains the
 * order.
 */
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

const coreRules = CORE_LAYERS.flatMap((layer, height) => {
  const above = CORE_LAYERS.slice(height + 1).flat();
  return layer.map(folder => {
    const forbidden = [...above, ...layer.filter(other => other !== folder)];
    return {
      files: [`core/${folder}/**/*.ts`],
      ignores: ['**/*.test.ts'],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              ...forbidden.map(other => ({
                group: [`../${other}/**`, `../../${other}/**`, `../../../${other}/**`],
                message: `core/${folder} lies below core/${other}.`,
              })),
              {
                group: ['react*', 'node:*', 'express', '@periwinkle/*', '../test/*'],
                message: 'The core knows no interface and no machine.',
              },
            ],
          },
        ],
      },
    };
  });
});

/** Server, interface and command line use the core, never one another. */
const packageRules = ['server', 'web', 'cli'].map(name => ({
  files: [`${name}/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: ['server', 'web', 'cli']
          .filter(other => other !== name)
          .map(other => ({
            group: [`**/${other}/**`, `@periwinkle/${other}*`],
            message: `${name} does not use ${other}; both use the core.`,
          })),
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'server/migrations/**'] },
  ...tseslint.configs.strict,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  ...coreRules,
  ...packageRules,
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);
