import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });

const core = {
  displayName: 'core',
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/jest.setup-properties.ts'],
  testMatch: ['<rootDir>/src/**/*.test.ts'],
};

const ui = {
  displayName: 'ui',
  testEnvironment: 'jsdom',
  setupFiles: ['<rootDir>/jest.setup-env.ts'],
  testMatch: ['<rootDir>/src/**/*.test.tsx'],
};

const config = async () => {
  const projects = [];
  for (const project of [core, ui]) {
    const made = await withNext(project)();
    // These ship ES modules only, at least for some of their entry points: transform them with the rest.
    projects.push({
      ...made,
      transformIgnorePatterns: ['/node_modules/(?!(pure-rand|echarts|zrender|react-hotkeys-hook)/)'],
    });
  }
  // Two cores: the studies wait for processes of their own, and something else can run meanwhile.
  return { projects, maxWorkers: 2 };
};

export default config;
