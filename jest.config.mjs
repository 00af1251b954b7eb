const shared = {
  rootDir: import.meta.dirname,
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  moduleNameMapper: {
    '^@periwinkle/core/(.*)$': '<rootDir>/core/$1',
    '^periwinkle:shipped$': '<rootDir>/scripts/shipped-scripts-for-tests.mjs',
  },
  transformIgnorePatterns: ['/node_modules/(?!(culori|comlink|httpxy)/)'],
  modulePathIgnorePatterns: ['/dist/', '/.data/'],
};

export default {
  projects: [
    { ...shared, displayName: 'core', testMatch: ['<rootDir>/core/**/*.test.ts'] },
    { ...shared, displayName: 'cli', testMatch: ['<rootDir>/cli/**/*.test.ts'] },
    { ...shared, displayName: 'server', testMatch: ['<rootDir>/server/**/*.test.ts'] },
    { ...shared, displayName: 'web', testMatch: ['<rootDir>/web/**/*.test.ts'] },
    { ...shared, displayName: 'scripts', testMatch: ['<rootDir>/scripts/**/*.test.mjs'] },
    { ...shared, displayName: 'e2e', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
};
