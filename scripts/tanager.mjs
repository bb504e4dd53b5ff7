#!/usr/bin/env node
// The command line: installs and builds what is missing (saying so on stderr), then hands over.
import { existsSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { ensureInstalled, runQuietly } from './ensure.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
process.env.TANAGER_HOME ??= root;
await ensureInstalled();
if (!existsSync(path.join(root, 'dist/tanager.mjs')))
  await runQuietly('Building the command line', process.execPath, [path.join(root, 'scripts/build-parts.mjs')]);
const { main } = await import(pathToFileURL(path.join(root, 'dist/tanager.mjs')).href);
process.exitCode = await main(process.argv.slice(2), process.env.INIT_CWD ?? process.cwd());
