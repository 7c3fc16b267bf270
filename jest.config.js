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
    '^@jubb/(sheet|book|play|wire)$': '<rootDir>/packages/$1/src/index.ts',
    '^@jubb/sheet/(given|editing)$': '<rootDir>/packages/sheet/src/$1/index.ts',
    '^@jubb/sheet/(days|file)$': '<rootDir>/packages/sheet/src/$1.ts',
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
    project('sheet', 'packages/sheet'),
    project('book', 'packages/book'),
    project('play', 'packages/play'),
    project('server', 'apps/server/src'),
    { ...project('web', 'apps/web/src'), setupFiles: ['<rootDir>/apps/web/src/kit/device.test-kit.ts'] },
    project('browser', 'tests'),
  ],
  // Several times what the longest takes, its server and browser begun with it, on a slow machine.
  testTimeout: 480_000,
  maxWorkers: 2,
};
