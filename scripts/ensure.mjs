/** What every command of the project needs to be there. Uses Node's own modules only. */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync, mkdirSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../', import.meta.url));
const stamps = join(root, 'node_modules', '.cadence');

/** Runs a command to its end; ends this process with a sentence where it fails. */
function must(command, args, sentence, quiet) {
  const stdio = quiet ? ['ignore', 'ignore', 'inherit'] : ['ignore', 2, 2];
  const { status } = spawnSync(command, args, { cwd: root, stdio });
  if (status === 0) return;
  process.stderr.write(`${sentence}\n`);
  process.exit(1);
}

const stampOf = (name) => {
  try {
    return readFileSync(join(stamps, name), 'utf8');
  } catch {
    return '';
  }
};

function stamp(name, value) {
  mkdirSync(stamps, { recursive: true });
  writeFileSync(join(stamps, name), value);
}

/** Installs the packages that the lock file names, unless they are there. */
export function ensurePackages(quiet = false) {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    process.stderr.write(`Node 20.19 or later is needed; this is ${process.versions.node}.\n`);
    process.exit(1);
  }
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(join(root, 'node_modules')) && stampOf('packages') === lock) return;
  if (!quiet) process.stderr.write('Installing packages …\n');
  must(
    'npm',
    ['ci', '--no-fund', '--no-audit', '--loglevel=error'],
    'The packages could not be installed.',
    quiet,
  );
  stamp('packages', lock);
}

/** The newest change below folders, in milliseconds. */
function newest(folders) {
  let latest = 0;
  const look = (path) => {
    const stat = statSync(path);
    latest = Math.max(latest, stat.mtimeMs);
    if (stat.isDirectory()) for (const name of readdirSync(path)) look(join(path, name));
  };
  folders.forEach((folder) => look(join(root, folder)));
  return latest;
}

/** Whether a file is there and newer than all its sources. */
const isFresh = (file, sources) =>
  existsSync(join(root, file)) && statSync(join(root, file)).mtimeMs > newest(sources);

/** Builds the interface and the command line, unless they are newer than their sources. */
export function ensureBuilt() {
  const sources = [
    'packages/core/src',
    'packages/paint/src',
    'packages/film/src',
    'packages/web/src',
  ];
  const beside = ['packages/web/index.html', 'package-lock.json'];
  if (!isFresh('packages/web/dist/index.html', [...sources, ...beside])) {
    process.stderr.write('Building the interface …\n');
    must('npm', ['run', '-s', 'build', '-w', '@cadence/web'], 'The interface could not be built.');
  }
  ensureCrew();
  ensureCommandLine();
}

/** What every bundle for Node depends on, beside its sources. */
const BUNDLED = ['packages/node/bundleForNode.ts', 'package-lock.json'];

/** Bundles what writes films beside the server, unless the bundle is newer than its sources. */
export function ensureCrew() {
  const sources = ['core', 'paint', 'film', 'node'].map((name) => `packages/${name}/src`);
  const bundle = 'packages/node/dist/crewProcess.mjs';
  if (!isFresh(bundle, [...sources, ...BUNDLED, 'packages/node/vite.config.ts']))
    must(
      'npm',
      ['run', '-s', 'build', '-w', '@cadence/node'],
      'What writes films on the server could not be built.',
      true,
    );
}

/** Bundles the command line, unless the bundle is newer than its sources; gives the bundle's path. */
export function ensureCommandLine() {
  const bundle = 'packages/cli/dist/main.mjs';
  const sources = ['core', 'paint', 'film', 'node', 'cli'].map((name) => `packages/${name}/src`);
  if (!isFresh(bundle, [...sources, ...BUNDLED, 'packages/cli/vite.config.ts']))
    must(
      'npm',
      ['run', '-s', 'build', '-w', '@cadence/cli'],
      'The command line could not be built.',
      true,
    );
  return join(root, bundle);
}

/** Makes sure that a program of Debian's packages is there, for tests. */
function ensureProgram(path, name, what) {
  if (existsSync(path)) return;
  const hint = `Install it with: apt-get install ${name}`;
  const allowed = process.getuid?.() === 0 && spawnSync('apt-get', ['--version']).status === 0;
  if (!allowed) {
    process.stderr.write(`The tests need ${what} at ${path}. ${hint}\n`);
    process.exit(1);
  }
  process.stderr.write(`Installing ${what} …\n`);
  must('apt-get', ['update', '-qq'], 'The list of Debian packages could not be read.');
  must(
    'apt-get',
    ['install', '-y', '-qq', '--no-install-recommends', name],
    `${what} could not be installed. ${hint}`,
  );
}

export const ensureChromium = () => ensureProgram('/usr/bin/chromium', 'chromium', 'Chromium');
export const ensureRedis = () => ensureProgram('/usr/bin/redis-server', 'redis-server', 'Redis');

/** Runs a TypeScript file on Node in the foreground and passes signals on; resolves with its exit code. */
export function runTypeScript(file, args = [], env = {}) {
  const child = spawn(process.execPath, ['--import', 'tsx', join(root, file), ...args], {
    stdio: 'inherit',
    cwd: root,
    env: { ...process.env, ...env },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  return new Promise((done) => child.on('exit', (code, signal) => done(signal ? 1 : (code ?? 1))));
}
