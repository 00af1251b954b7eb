import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Tables of data, which are as long as what they tell. */
const TABLES = ['core/css/property-registry.ts', 'core/edits/starting/*.ts', 'server/source/http/openapi.ts'];

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
  {
    files: ['core/**/*.ts', 'server/**/*.ts', 'cli/**/*.ts', 'scripts/**/*.mjs'],
    ignores: ['**/*.test.ts', ...TABLES],
    rules: {
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);
