// Text is compared as it reads: machines that build force colours, terminals have them, pipes do not. Workers get this too.
process.env.NO_COLOR = '1';
delete process.env.FORCE_COLOR;

/** Core tests run on the sources; the tests of the built program start dist/cli/main.js as a child process. */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/test'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic', importSource: 'preact' } },
        },
        module: { type: 'es6' },
      },
    ],
  },
  // Two browsers' worth of work at once, whatever the machine.
  maxWorkers: 2,
  testTimeout: 300_000,
};
