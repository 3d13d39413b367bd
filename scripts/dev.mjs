/** Starts the server and the interface for developers, both renewed as files change. */
import { spawn } from 'node:child_process';
import { ensureCrew, ensurePackages, root } from './ensure.mjs';

ensurePackages();
ensureCrew();
const port = process.env.CADENCE_PORT ?? '4310';
const env = { ...process.env, CADENCE_PORT: port, CADENCE_WEB: 'none' };
const start = (args) => spawn('npx', args, { cwd: root, stdio: 'inherit', env });
const running = [
  start(['tsx', 'watch', '--clear-screen=false', 'packages/server/src/main.ts']),
  start(['npm', 'run', '-s', 'dev', '-w', '@cadence/web']),
];
const stop = () => running.forEach((child) => child.kill('SIGTERM'));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
running.forEach((child) => child.on('exit', stop));
