/** Jest runs the sources as ES modules; swc keeps the decorators' metadata. */
const shared = {
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testEnvironment: 'node',
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2023',
          parser: { syntax: 'typescript', tsx: true, decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false, react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
      },
    ],
  },
  moduleNameMapper: {
    '^@jubb/core$': '<rootDir>/packages/core/src/index.ts',
    '^@jubb/contract$': '<rootDir>/packages/contract/src/index.ts',
    '^@jubb/contract/sheet$': '<rootDir>/packages/contract/src/sheet/index.ts',
    '^@jubb/contract/job$': '<rootDir>/packages/contract/src/job/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
};

const project = (displayName, folder) => ({
  ...shared,
  displayName,
  rootDir: import.meta.dirname,
  roots: [`<rootDir>/${folder}`],
  testMatch: ['**/*.test.ts'],
});

export default {
  projects: [
    project('core', 'packages/core'),
    project('contract', 'packages/contract'),
    project('server', 'apps/server/src'),
    project('browser', 'tests'),
  ],
  testTimeout: 600_000,
  maxWorkers: 2,
};
