// Turns TypeScript and ES modules into CommonJS for Jest; types are checked apart by tsc.
const { transformSync } = require('esbuild');

module.exports = {
  process(source, path) {
    const loader = path.endsWith('.ts') ? 'ts' : 'js';
    const { code, map } = transformSync(source, {
      loader,
      format: 'cjs',
      target: 'node20',
      sourcemap: 'external',
      sourcefile: path,
      supported: { 'dynamic-import': true },
      define: { 'import.meta.url': '__importMetaUrl' },
      banner: "const __importMetaUrl = require('node:url').pathToFileURL(__filename).href;",
    });
    return { code, map };
  },
};
