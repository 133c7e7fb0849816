// Lints, builds, checks types and runs every test; closes with "N passed, N failed".
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const reports = mkdtempSync(join(tmpdir(), 'stravel-test-'));
const only = process.argv.slice(2);
let passed = 0;
let failed = 0;

function run(command, parameters, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, parameters, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
    child.on('exit', (code) => resolve(code ?? 1));
    child.on('error', () => resolve(127));
  });
}

async function step(name, command, parameters, env) {
  if (only.length > 0 && !only.includes(name)) return;
  const start = Date.now();
  process.stdout.write(`\n== ${name}\n`);
  const code = await run(command, parameters, env);
  process.stdout.write(
    `== ${name} ${code === 0 ? 'passed' : 'FAILED'} in ${Math.round((Date.now() - start) / 1000)} s\n`,
  );
  if (code === 0) passed += 1;
  else failed += 1;
}

/** Tests that failed at first and passed when they were tried again. */
const retried = [];

function noteRetried({ suites = [], specs = [], file = '' }) {
  for (const suite of suites) noteRetried({ ...suite, file: suite.file ?? file });
  for (const { title, tests } of specs)
    if (tests.some(({ status }) => status === 'flaky')) retried.push(`${file} ${title}`);
}

function count(file, read) {
  if (!existsSync(file)) return;
  const [good, bad] = read(JSON.parse(readFileSync(file, 'utf8')));
  passed += good;
  failed += bad;
}

function installChromium() {
  if (existsSync('/usr/bin/chromium')) return;
  process.stdout.write("== installing Debian's Chromium\n");
  execFileSync('apt-get', ['update', '-qq'], { stdio: 'inherit' });
  execFileSync('apt-get', ['install', '-y', '-qq', 'chromium'], { stdio: ['ignore', 'ignore', 'inherit'] });
}

const jestReport = join(reports, 'jest.json');
const e2eReport = join(reports, 'e2e.json');
const script = (name) => step(name, 'npm', ['run', '--silent', name]);
// The lint takes one core as long as types and build take the other.
await Promise.all([script('lint'), script('types').then(() => script('build'))]);
await step('unit', 'npx', ['jest', '--maxWorkers=100%', '--json', `--outputFile=${jestReport}`]);
count(jestReport, (r) => [r.numPassedTests, r.numFailedTests]);
if (only.length === 0 || only.includes('e2e')) {
  installChromium();
  await step('e2e', 'npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts'], {
    STRAVEL_E2E_REPORT: e2eReport,
    CI: '1',
  });
  count(e2eReport, (r) => {
    noteRetried(r);
    return [r.stats.expected + r.stats.flaky, r.stats.unexpected];
  });
}
for (const name of retried) process.stdout.write(`passed when tried again: ${name}\n`);
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;
