import { describe, expect, it } from '@jest/globals';
import { Validator } from '@seriousme/openapi-schema-validator';
import { openApi } from './openapi';
import { ROUTES } from './routes';

describe('the OpenAPI document', () => {
  it('is valid by the published schema of OpenAPI 3.1, references and all', async () => {
    const { valid, errors } = await new Validator().validate(
      structuredClone(openApi()) as unknown as Record<string, unknown>,
    );
    expect([valid, errors]).toEqual([true, undefined]);
  });
  it('has every route, what the documents say of it, and who may ask', () => {
    const { paths } = openApi();
    const names = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path.replace(/\{(\w+)\}/g, '[$1]')}`),
    );
    expect(names.sort()).toEqual(Object.keys(ROUTES).sort());
    for (const methods of Object.values(paths))
      for (const { summary } of Object.values(methods)) expect(summary).not.toMatch(/^(GET|POST|PATCH|DELETE) /);
    expect(paths['/api/v1/shows']!.post).toMatchObject({
      security: [{ token: ['shows'] }, { browser: [] }],
      requestBody: { content: { 'application/json': { schema: { required: ['title'] } } } },
    });
    expect(paths['/api/v1/tokens']!.post!.security).toEqual([{ browser: [] }]);
    expect(paths['/api/health']!.get!.security).toEqual([]);
    expect(paths['/api/v1/films/{film}']!.delete!.parameters).toEqual([
      { name: 'film', in: 'path', required: true, schema: { type: 'string' } },
    ]);
  });
});
