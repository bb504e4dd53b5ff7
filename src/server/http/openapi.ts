import { readFileSync } from 'node:fs';
import path from 'node:path';
import { jsonSchemas, type JsonSchema } from '../../core/schema/json-schema';
import { object, text } from '../../core/schema/schema';
import { projectFolder } from '../paths';
import { isForAnybody, scopeFor } from '../studio/may-do';
import { ROUTES, type Route } from './routes';

/** An operation as its page shows it. */
export interface OperationTold {
  readonly summary: string;
  readonly tags: readonly string[];
  readonly security: readonly object[];
  readonly parameters: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: {
    readonly required: true;
    readonly content: Readonly<Record<string, { readonly schema: JsonSchema }>>;
  };
  readonly responses: Readonly<Record<string, unknown>>;
}

export interface OpenApi {
  readonly openapi: '3.1.0';
  readonly info: { readonly title: string; readonly version: string; readonly description: string };
  readonly paths: Readonly<Record<string, Readonly<Record<string, OperationTold>>>>;
  readonly components: Readonly<Record<string, unknown>>;
}

const SHARED = '#/components/schemas/';
const PROBLEM = object<{ problem: unknown }>({ problem: text(10_000) });
let made: OpenApi | null = null;

/** Everything that can be asked of the server, as OpenAPI 3.1: made of the very schemas that guard the routes, and of what `docs/http.md` says of them. */
export function openApi(): OpenApi {
  return (made ??= build());
}

function build(): OpenApi {
  const schemas = jsonSchemas(SHARED);
  const told = sentences();
  const paths: Record<string, Record<string, OperationTold>> = {};
  const problem = {
    description: 'Why not, as a sentence.',
    content: { 'application/json': { schema: schemas.of(PROBLEM) } },
  };
  for (const [name, declared] of Object.entries(ROUTES) as [string, Route][]) {
    const [method, at] = name.split(' ') as [string, string];
    const open = at.replace(/\[(\w+)\]/g, '{$1}');
    const { summary, tag } = told.get(name) ?? { summary: name, tag: 'More' };
    const scope = isForAnybody(declared.deed) ? undefined : scopeFor(declared.deed);
    (paths[open] ??= {})[method.toLowerCase()] = {
      summary,
      tags: [tag],
      security: scope === undefined ? [] : scope === null ? [{ browser: [] }] : [{ token: [scope] }, { browser: [] }],
      parameters: [...at.matchAll(/\[(\w+)\]/g)].map(([, part]) => ({
        ...{ name: part!, in: 'path', required: true, schema: { type: 'string' } },
      })),
      ...(declared.takes && {
        requestBody: { required: true, content: { 'application/json': { schema: schemas.of(declared.takes) } } },
      }),
      responses: {
        '200': declared.gives
          ? { description: 'Done.', content: { 'application/json': { schema: schemas.of(declared.gives) } } }
          : { description: 'Not JSON: see what is said of it.' },
        default: problem,
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Tanager',
      version: '1',
      description:
        'Everything a program can ask. A token (Studio, For programs) goes into the header as `Authorization: Bearer …`. Files are brought by tus 1.0.',
    },
    paths,
    components: {
      schemas: schemas.shared,
      securitySchemes: {
        token: { type: 'http', scheme: 'bearer' },
        browser: { type: 'apiKey', in: 'cookie', name: 'tanager-session' },
      },
    },
  };
}

/** What the documents say of each route, and under which heading. */
function sentences(): Map<string, { readonly summary: string; readonly tag: string }> {
  const told = new Map<string, { summary: string; tag: string }>();
  let tag = 'More';
  for (const line of readFileSync(path.join(projectFolder(), 'docs/http.md'), 'utf8').split('\n')) {
    tag = /^## (.+)$/.exec(line)?.[1] ?? tag;
    const found = /^\| `((?:GET|POST|PATCH|DELETE) [^`]+)` \| (.*) \|$/.exec(line);
    if (found)
      told.set(found[1]!, { summary: found[2]!.replace(/\[([^\]]+)\]\([^)]*\)/g, '$1').replaceAll('\\|', '|'), tag });
  }
  return told;
}
