// What the commands need before anything else: packages and Debian's programs. Uses nothing that is not in Node itself.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

/** Runs a command with its output shown only when it fails. */
export function runQuietly(what, command, args, options = {}) {
  return new Promise((resolve, reject) => {
    process.stderr.write(`${what} …\n`);
    const startedMs = Date.now();
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      ...options,
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...options.env },
    });
    let said = '';
    child.stdout.on('data', (chunk) => {
      said += chunk;
    });
    child.stderr.on('data', (chunk) => {
      said += chunk;
    });
    child.on('error', reject);
    child.on('close', (code) => {
      if (code === 0) {
        process.stderr.write(`${what}: done in ${((Date.now() - startedMs) / 1000).toFixed(1)} s\n`);
        resolve();
      } else reject(new Error(`${what} failed (${code}):\n${said.slice(-6000)}`));
    });
  });
}

/** Runs a command with its output passed through. @returns its exit code */
export function run(command, args, env = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
    });
    child.on('error', reject);
    child.on('close', (code) => resolve(code ?? 1));
  });
}

/** Installs the packages when the lock file is not the one they were installed from. */
export async function ensureInstalled() {
  const lock = createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
  const stampFile = path.join(root, 'node_modules/.installed-from');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === lock) return;
  await runQuietly('Installing packages', 'npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund'], {
    shell: process.platform === 'win32',
  });
  mkdirSync(path.dirname(stampFile), { recursive: true });
  writeFileSync(stampFile, lock);
}

/** Makes sure programs are there, through Debian's packages when that is possible. */
export async function ensurePrograms(programs) {
  const missing = Object.entries(programs).filter(([program]) => spawnSync('which', [program]).status !== 0);
  if (missing.length === 0) return;
  const packages = missing.map(([, debianPackage]) => debianPackage);
  const canInstall = spawnSync('which', ['apt-get']).status === 0 && process.getuid?.() === 0;
  if (!canInstall)
    throw new Error(
      `These programs are needed and not installed: ${missing.map(([program]) => program).join(', ')}. On Debian: apt-get install ${packages.join(' ')}`,
    );
  const quiet = { env: { DEBIAN_FRONTEND: 'noninteractive' } };
  await runQuietly('Asking for the list of system packages', 'apt-get', ['update', '-qq'], quiet);
  await runQuietly(
    `Installing ${packages.join(', ')}`,
    'apt-get',
    ['install', '-y', '-qq', '--no-install-recommends', ...packages],
    quiet,
  );
}
