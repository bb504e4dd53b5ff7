import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { PAGES, ROUTES } from './routes';

const filesBelow = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => path.join(entry.parentPath, entry.name));

/** The path a file answers under; what stands for all that follows is left out. */
const pathOf = (file: string, top: string) =>
  '/' +
  path
    .relative(top, file)
    .replace(/(\/?route|\/?page)?\.tsx?$/, '')
    .replace(/\/\[\[\.\.\.path\]\]$/, '');

/** Every method that a file of the App Router answers. */
function methodsIn(file: string): string[] {
  const text = readFileSync(file, 'utf8');
  return ['GET', 'HEAD', 'POST', 'PATCH', 'PUT', 'DELETE', 'OPTIONS'].filter((method) =>
    new RegExp(`export (const|function|async function) ${method}\\b|as ${method}\\b`).test(text),
  );
}

const appRoutes = filesBelow('src/app')
  .filter((file) => /\/route\.ts$/.test(file))
  .flatMap((file) => methodsIn(file).map((method) => ({ file, name: `${method} ${pathOf(file, 'src/app')}` })));
const pageRoutes = filesBelow('src/pages').map((file) => ({
  file,
  name: `${/'(POST|GET|PATCH) \/api/.exec(readFileSync(file, 'utf8'))?.[1] ?? 'GET'} ${pathOf(file, 'src/pages')}`,
}));
const isUpload = (name: string) => name.endsWith(' /api/v1/uploads');

describe('the table of routes', () => {
  it.each([...appRoutes, ...pageRoutes].map(({ name, file }) => [name, file]))(
    'has %s, and its file asks by that name',
    (name, file) => {
      const key = isUpload(name) ? 'POST /api/v1/uploads' : name;
      expect(Object.keys(ROUTES)).toContain(key);
      const asks = readFileSync(isUpload(name) ? 'src/server/assets/uploads.ts' : file, 'utf8');
      expect(asks).toContain(`'${key}'`);
    },
  );
  it('names no route that is not there', () => {
    const there = new Set([...appRoutes, ...pageRoutes].map((route) => route.name));
    expect(Object.keys(ROUTES).filter((name) => !there.has(name))).toEqual([]);
  });
  it.each(Object.entries(ROUTES))('%s stands under a version, and says what comes in and goes out', (name, route) => {
    expect(name).toMatch(/^(GET|POST|PATCH|DELETE) \/api\/(v1\/|health$)/);
    if (
      /^(POST|PATCH) /.test(name) &&
      !/\/(uploads|cancel|again|next|copy|series|discs|samples|bytes|link|asked|visit)$|people.*\/entry$|discs\/\[disc\]\/making$|pieces\/\[piece\]$/.test(
        name,
      )
    )
      expect(route).toHaveProperty('takes');
    if (
      !/^(GET|POST) .*\/(asked|arrival|bundle|pictures?|logo|oembed|still|clips|sounds|film|file|stored|events|captions|table|marks|image|label|pages|band)/.test(
        name,
      ) &&
      !isUpload(name)
    )
      expect(route).toHaveProperty('gives');
  });
  it('stands in the documents, every route of it and no other', () => {
    const told = [...readFileSync('docs/http.md', 'utf8').matchAll(/^\| `((?:GET|POST|PATCH|DELETE) [^`]+)` \|/gm)];
    expect(told.map(([, name]) => name).sort()).toEqual(Object.keys(ROUTES).sort());
  });
  it('has every page', () => {
    const pages = filesBelow('src/app')
      .filter((file) => /\/page\.tsx$/.test(file))
      .map((file) => pathOf(file, 'src/app'));
    expect(Object.keys(PAGES).sort()).toEqual(pages.sort());
  });
  it.each(Object.keys(PAGES))('asks by its name whether %s may be shown', (page) => {
    expect(readFileSync(path.join('src/app', page, 'page.tsx'), 'utf8')).toContain(`'${page}'`);
  });
});
