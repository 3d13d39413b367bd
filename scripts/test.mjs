/**
 * Sets everything up and runs all tests: types, lint, arrows, kernels, units, end-to-end.
 *
 * The last line is `N passed, N failed`: each check of the sources counts as one, each test as one.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensurePackages, ensureRedis, root } from './ensure.mjs';

ensurePackages();
ensureChromium();
ensureRedis();
ensureBuilt();

const reports = mkdtempSync(join(tmpdir(), 'cadence-tests-'));
let [passed, failed] = [0, 0];

function run(title, args, env = {}) {
  process.stdout.write(`\n== ${title}\n`);
  const { status } = spawnSync('npm', ['run', '-s', ...args], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  return status === 0;
}

function check(title, script) {
  if (run(title, [script])) passed++;
  else failed++;
}

/** Counts the tests of a report; a run that left none, or failed beside its tests, counts as a failure. */
function count(good, file, read) {
  try {
    const [fine, bad] = read(JSON.parse(readFileSync(file, 'utf8')));
    passed += fine;
    failed += bad === 0 && !good ? 1 : bad;
    if (fine + bad === 0) failed++;
  } catch {
    failed++;
  }
}

check('Types', 'types');
check('Lint and format', 'lint');
check('Arrows', 'arrows');
check('Kernels', 'kernels:check');

const units = join(reports, 'units.json');
const unitsGood = run('Units', ['unit', '--', '--json', `--outputFile=${units}`, '--silent']);
count(unitsGood, units, (report) => [
  report.numPassedTests,
  report.numFailedTests + report.numRuntimeErrorTestSuites,
]);

const ends = join(reports, 'ends.json');
const endsGood = run('End to end', ['e2e'], {
  PLAYWRIGHT_JSON_OUTPUT_NAME: ends,
  CADENCE_E2E_REPORT: '1',
});
count(endsGood, ends, ({ stats }) => [stats.expected + stats.flaky, stats.unexpected]);

rmSync(reports, { recursive: true });
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;
