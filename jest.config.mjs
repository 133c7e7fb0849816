const plain = (name, roots) => ({
  displayName: name,
  roots,
  testEnvironment: 'node',
  testMatch: ['**/*.spec.ts'],
  setupFiles: ['<rootDir>/scripts/property-seed.cjs', '<rootDir>/scripts/pattern-engine.cjs'],
  transform: { '\\.[mc]?[tj]s$': '<rootDir>/scripts/jest-esbuild.cjs' },
  transformIgnorePatterns: [
    '/node_modules/(?!(fast-png|iobuffer|earcut|flatqueue|fractional-indexing|@noble|@gltf-transform|property-graph|idb|meshoptimizer|three|@angular)/)',
  ],
});

export default {
  testTimeout: 30000,
  projects: [
    plain('core', ['<rootDir>/packages/core/src']),
    plain('reader', ['<rootDir>/packages/reader/src']),
    plain('walker', ['<rootDir>/packages/walker/src']),
    plain('server', ['<rootDir>/packages/server/src']),
    plain('cli', ['<rootDir>/packages/cli/src']),
    plain('scripts', ['<rootDir>/scripts']),
    '<rootDir>/packages/web/jest.config.mjs',
  ],
};
