import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });

/** A test's sandbox looks a global up slowly; what the simulation asks for in every sample is handed in instead. */
const sandboxInjectedGlobals = ['Math', 'Number', 'Object', 'Array', 'Float64Array'];

const core = {
  displayName: 'core',
  sandboxInjectedGlobals,
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/jest.setup-properties.ts', '<rootDir>/jest.setup-threads.ts'],
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', '\\.study\\.test\\.ts$'],
};

// Thousands of simulated runs, in processes of their own.
const studies = {
  displayName: 'studies',
  sandboxInjectedGlobals,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.study.test.ts'],
};

const ui = {
  displayName: 'ui',
  sandboxInjectedGlobals,
  testEnvironment: 'jsdom',
  setupFiles: ['<rootDir>/jest.setup-env.ts'],
  setupFilesAfterEnv: ['<rootDir>/jest.setup-screens.tsx'],
  testMatch: ['<rootDir>/src/**/*.test.tsx'],
};

const config = async () => {
  const projects = [];
  for (const project of [core, studies, ui]) {
    const made = await withNext(project)();
    // These ship ES modules only, at least for some of their entry points: transform them with the rest.
    projects.push({
      ...made,
      transformIgnorePatterns: ['/node_modules/(?!(pure-rand|echarts|zrender|react-hotkeys-hook)/)'],
    });
  }
  // No test asserts a wall-clock time, so a busy machine must not end one either.
  return { projects, maxWorkers: 2, testTimeout: 60_000 };
};

export default config;
