import presets from 'jest-preset-angular/presets/index.js';

const { testEnvironment, ...preset } = presets.createCjsPreset({
  tsconfig: '<rootDir>/tsconfig.spec.json',
});

export default {
  ...preset,
  displayName: 'web',
  testEnvironment: 'jest-preset-angular/environments/jest-jsdom-env',
  rootDir: import.meta.dirname,
  roots: ['<rootDir>/src'],
  setupFiles: [...(preset.setupFiles ?? []), '<rootDir>/../../scripts/property-seed.cjs'],
  setupFilesAfterEnv: ['<rootDir>/src/testing/setup.ts'],
  transformIgnorePatterns: [
    '/node_modules/(?!(.*\\.mjs$|fast-png|iobuffer|earcut|flatqueue|fractional-indexing|@noble|@gltf-transform|property-graph|three|idb|meshoptimizer|marked))',
  ],
};
