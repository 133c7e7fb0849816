// Builds the server, the shell's commands and the page.
import { execFileSync } from 'node:child_process';
import { cpSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { compressPage } from './compress-page.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const ownPackages = /^@stravel\//;

/** Every package from the registry stays outside the bundle; the workspace's own source goes in. */
const externals = {
  name: 'registry-packages-stay-outside',
  setup(plugin) {
    plugin.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' || ownPackages.test(path) ? undefined : { path, external: true },
    );
  },
};

export async function buildNode() {
  await build({
    absWorkingDir: root,
    entryPoints: {
      'cli/dist/main': 'packages/cli/src/main.ts',
      'cli/dist/bench': 'bench/main.ts',
      'cli/dist/job.worker': 'packages/server/src/jobs/job.worker.ts',
      'cli/dist/make-demo': 'demo/archive.ts',
      'server/dist/main': 'packages/server/src/main.ts',
      'server/dist/job.worker': 'packages/server/src/jobs/job.worker.ts',
    },
    outdir: 'packages',
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
    plugins: [externals],
  });
  execFileSync(process.execPath, ['packages/cli/dist/make-demo.js', 'packages/cli/dist/cinderbrine.stravel.zip'], {
    cwd: root,
    stdio: 'inherit',
  });
  await build({
    absWorkingDir: root,
    entryPoints: { 'cli/dist/bench-plate': 'bench/web/plate-page.ts' },
    outdir: 'packages',
    bundle: true,
    minify: true,
    platform: 'browser',
    format: 'iife',
    target: 'es2022',
    external: ['node:fs', 'node:path'],
    logLevel: 'warning',
  });
}

/** The reader of packs, as a game takes it, with its types. */
async function buildReader() {
  await build({
    absWorkingDir: root,
    entryPoints: { 'stravel-reader': 'packages/reader/src/index.ts' },
    outdir: 'packages/reader/dist',
    bundle: true,
    minify: true,
    platform: 'neutral',
    format: 'esm',
    target: 'es2022',
    logLevel: 'warning',
  });
  const options = [
    '--noEmit',
    'false',
    '--declaration',
    '--emitDeclarationOnly',
    '--outDir',
    'packages/reader/dist/types',
  ];
  execFileSync('npx', ['tsc', '-p', 'packages/reader/tsconfig.lib.json', ...options], { cwd: root, stdio: 'inherit' });
}

/** Draco's decoder, a file that workers load when a mesh needs it. */
async function buildDraco() {
  await build({
    absWorkingDir: root,
    entryPoints: { draco: 'packages/web/draco/draco.js' },
    outdir: 'packages/web/dist/browser',
    bundle: true,
    minify: true,
    platform: 'browser',
    format: 'esm',
    target: 'es2022',
    loader: { '.wasm': 'binary' },
    // Asked for by what runs in Node alone.
    external: ['fs', 'path'],
    logLevel: 'warning',
  });
}

export async function buildWeb() {
  execFileSync('npx', ['ng', 'build', 'stravel'], {
    cwd: `${root}/packages/web`,
    stdio: 'inherit',
    // Some forty small files of the first page become one, which is fetched and unpacked in half the time.
    env: { ...process.env, NG_CLI_ANALYTICS: 'false', NG_BUILD_OPTIMIZE_CHUNKS: 'true' },
  });
  await buildDraco();
  // Pictures of the guide, which stand outside of Angular's workspace.
  cpSync(`${root}/docs/screenshots`, `${root}/packages/web/dist/browser/guide`, { recursive: true });
  compressPage(`${root}/packages/web/dist/browser`);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  await buildNode();
  await buildReader();
  if (!process.argv.includes('--node')) await buildWeb();
}
