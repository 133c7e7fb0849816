import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { buildSync } from 'esbuild';

describe('the reader as a game takes it', () => {
  it('has no dependency, and is at most 15 kB gzip', () => {
    const folder = fileURLToPath(new URL('..', import.meta.url));
    const { dependencies } = JSON.parse(readFileSync(`${folder}/package.json`, 'utf8')) as { dependencies?: object };
    expect(dependencies).toBeUndefined();
    const { outputFiles, metafile } = buildSync({
      absWorkingDir: folder,
      entryPoints: ['src/index.ts'],
      bundle: true,
      minify: true,
      format: 'esm',
      platform: 'neutral',
      write: false,
      metafile: true,
    });
    expect(Object.keys(metafile.inputs).every((path) => path.startsWith('src/'))).toBe(true);
    expect(gzipSync(outputFiles[0].contents).length).toBeLessThanOrEqual(15000);
  });
});
