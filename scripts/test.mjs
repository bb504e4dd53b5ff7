// Everything that decides whether the product works: npm test. Installs what is missing first. The last line is “N passed, N failed”.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureInstalled, ensurePrograms, root, run, runQuietly } from './ensure.mjs';

const bin = (name) => path.join(root, 'node_modules', name);
const vmModules = { NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning' };
const reports = mkdtempSync(path.join(tmpdir(), 'tanager-test-'));
let passed = 0;
let failed = 0;

await ensurePrograms({
  ffmpeg: 'ffmpeg',
  ffprobe: 'ffmpeg',
  chromium: 'chromium',
  dvdauthor: 'dvdauthor',
  genisoimage: 'genisoimage',
  // Readers of discs that are not ours.
  lsdvd: 'lsdvd',
  'redis-server': 'redis-server',
});
await ensureInstalled();
// What reads the code and what builds from it do not wait for each other.
await Promise.all([readTheCode(), runQuietly('Building', process.execPath, [path.join(root, 'scripts/build.mjs')])]);
await check('The types hold', [bin('typescript/bin/tsc'), '--noEmit']);
await jest('unit', []);
await jest('e2e', ['--config', 'jest.e2e.config.mjs', '--runInBand']);
rmSync(reports, { recursive: true, force: true });
process.stdout.write(`${passed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;

async function readTheCode() {
  await check('The code is formatted', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']);
  await check('The code keeps to the style', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0'], {
    TYPED_LINT: '1',
  });
  await check('Nothing lies about that nobody uses', [bin('knip/bin/knip.js'), '--no-progress']);
  await check('The rooms import only from above', [
    bin('dependency-cruiser/bin/dependency-cruise.mjs'),
    '--config',
    '.dependency-cruiser.cjs',
    'src',
  ]);
}

async function check(what, args, env = {}) {
  const code = await run(process.execPath, args, env);
  if (code === 0) passed += 1;
  else failed += 1;
  process.stdout.write(`${code === 0 ? '✓' : '✗'} ${what}\n`);
}

async function jest(name, args) {
  const report = path.join(reports, `${name}.json`);
  const code = await run(process.execPath, [bin('jest/bin/jest.js'), ...args, '--json', '--outputFile', report], {
    ...vmModules,
  });
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(report, 'utf8'));
  passed += numPassedTests;
  // A suite that could not even be read counts as a failure, and so does a run that ended badly without saying why.
  failed +=
    numFailedTests +
    numRuntimeErrorTestSuites +
    (code !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0 ? 1 : 0);
}
