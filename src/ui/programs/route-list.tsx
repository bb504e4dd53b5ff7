import type { OpenApi, OperationTold } from '../../server/http/openapi';
import { Head } from '../people/studio-bar';

/** Everything that can be asked, to read: by headings, each with what comes in and goes out. */
export function RouteList({ api }: { api: OpenApi }) {
  const byTag = new Map<string, { readonly name: string; readonly operation: OperationTold }[]>();
  for (const [path, methods] of Object.entries(api.paths))
    for (const [method, operation] of Object.entries(methods)) {
      const tag = operation.tags[0]!;
      byTag.set(tag, [...(byTag.get(tag) ?? []), { name: `${method.toUpperCase()} ${path}`, operation }]);
    }
  return (
    <section aria-label="Everything that can be asked" data-part="routes">
      <Head title="Everything that can be asked">
        <a href="/api/v1/openapi" className="text-soft underline hover:text-ink" download="tanager-openapi.json">
          as OpenAPI 3.1
        </a>
      </Head>
      <p className="mt-2 max-w-2xl text-soft">
        Bodies and answers are JSON. Send a token as <code className="font-mono">Authorization: Bearer tanager_…</code>;
        a refusal is a sentence in <code className="font-mono">problem</code>.
      </p>
      {[...byTag].map(([tag, operations]) => (
        <div key={tag} className="mt-6">
          <h3 className="text-base font-semibold">{tag}</h3>
          <ul className="mt-1">
            {operations.map(({ name, operation }) => (
              <li key={name} className="border-b border-rule">
                <details className="py-1.5">
                  <summary className="cursor-pointer">
                    <code className="font-mono text-xs">{name}</code>{' '}
                    <span className="text-soft">{operation.summary.replaceAll('`', '')}</span>
                  </summary>
                  <Parts title="Takes" schema={operation.requestBody?.content['application/json']?.schema} />
                  <Parts title="Gives" schema={answerOf(operation)} />
                  <p className="py-1 pl-4 text-soft">{whoMay(operation)}</p>
                </details>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

const LONGEST = 6000;

function Parts({ title, schema }: { title: string; schema: unknown }) {
  if (schema === undefined) return null;
  const text = JSON.stringify(schema, null, 2);
  return (
    <div className="py-1 pl-4">
      <b className="text-xs font-semibold text-soft">{title}</b>
      <pre tabIndex={0} aria-label={title} className="max-h-72 overflow-auto bg-card p-2 font-mono text-xs scroll-thin">
        {text.length > LONGEST ? `${text.slice(0, LONGEST)}\n… the whole of it is in the OpenAPI document` : text}
      </pre>
    </div>
  );
}

function answerOf({ responses }: OperationTold): unknown {
  const ok = responses['200'] as { content?: Record<string, { schema: unknown }> };
  return ok.content?.['application/json']?.schema;
}

function whoMay({ security }: OperationTold): string {
  const scope = security.flatMap((one) => ('token' in one ? (one.token as string[]) : []))[0];
  if (security.length === 0) return 'Anybody may ask.';
  return scope === undefined
    ? 'For people who are signed in; no token is enough.'
    : `A token for “${scope}” is enough.`;
}
