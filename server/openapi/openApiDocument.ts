import { problem } from '@zugluft/core/library/answers';
import { z } from 'zod';
import { ROUTES, type RouteDescription } from './routes';

type Json = Record<string, unknown>;

/** Schemas that stand under components, each under its name. */
const NAMED = new Map<z.ZodType, string>();

function schemaOf(schema: z.ZodType, io: 'input' | 'output'): Json {
  const { $schema: _, ...json } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Json;
  return json;
}

function reference(schema: z.ZodType, io: 'input' | 'output', components: Json): Json {
  const known = NAMED.get(schema) ?? `Schema${NAMED.size + 1}`;
  NAMED.set(schema, known);
  const name = `${known}${io === 'input' ? 'In' : 'Out'}`;
  components[name] ??= schemaOf(schema, io);
  return { $ref: `#/components/schemas/${name}` };
}

function parameters(route: RouteDescription): Json[] {
  const inPath = [...route.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const query = route.query ? schemaOf(route.query, 'input') : {};
  const inQuery = Object.entries((query['properties'] as Record<string, Json>) ?? {}).map(
    ([name, schema]) => ({ name, in: 'query', required: false, schema }),
  );
  const header = (name: string, required: boolean, description: string) => ({
    name,
    in: 'header',
    required,
    description,
    schema: { type: 'string' },
  });
  return [
    ...inPath,
    ...inQuery,
    ...(route.lock
      ? [
          header('If-Match', true, 'the revision seen, such as "7"'),
          header(
            'Idempotency-Key',
            false,
            'the sender’s own name for a write: sent twice, it is taken once',
          ),
        ]
      : []),
  ];
}

function answers(route: RouteDescription, components: Json): Json {
  const { answer, status = 200 } = route;
  const content =
    typeof answer === 'string'
      ? { [answer]: {} }
      : { 'application/json': { schema: reference(answer, 'output', components) } };
  const refused = (description: string) => ({
    description,
    content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
  });
  return {
    [status]: { description: route.summary, content },
    ...(route.lock
      ? {
          412: refused('changed meanwhile: both versions, and the figures that differ'),
          428: refused('no revision named'),
        }
      : {}),
    default: refused('refused, in words'),
  };
}

/** The whole HTTP interface as an OpenAPI document, made from the schemas that the server reads requests by. */
export function openApiDocument(): string {
  NAMED.clear();
  const components: Json = { Problem: schemaOf(problem, 'output') };
  const paths: Record<string, Json> = {};
  for (const route of ROUTES) {
    const { method, path, summary, body } = route;
    const content =
      body === 'file'
        ? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
        : body && { 'application/json': { schema: reference(body, 'input', components) } };
    paths[path] = {
      ...paths[path],
      [method]: {
        summary,
        operationId: `${method}${path
          .replace(/^\/api/, '')
          .replace(/[^A-Za-z]+(\w)/g, (_, c: string) => c.toUpperCase())
          .replace(/\W/g, '')}`,
        parameters: parameters(route),
        ...(content ? { requestBody: { required: true, content } } : {}),
        responses: answers(route, components),
      },
    };
  }
  const document = {
    openapi: '3.1.0',
    info: {
      title: 'Zugluft',
      version: '1',
      description: 'The library of a laboratory. It answers on the loopback address alone.',
    },
    paths,
    components: { schemas: components },
  };
  return `${JSON.stringify(document, null, 1)}\n`;
}
