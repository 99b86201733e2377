import { unitFacts } from '@zugluft/core/family/unitFacts';
import { problem } from '@zugluft/core/library/answers';
import { attachmentFacts } from '@zugluft/core/library/attachment';
import { recordSchema } from '@zugluft/core/record/recordSchema';
import { runSchema } from '@zugluft/core/runs/runDocument';
import { openUpLog } from '@zugluft/core/service/openUpLog';
import { z } from 'zod';
import { ROUTES, type RouteDescription } from './routes';

type Json = Record<string, unknown>;

/** Schemas that many routes hold: each stands once, under its name, and is referred to. */
const SHARED: readonly (readonly [string, z.ZodType])[] = [
  ['Record', recordSchema],
  ['OpeningLog', openUpLog],
  ['UnitFacts', unitFacts],
  ['PhotoFacts', attachmentFacts],
  ['Run', runSchema],
];

type Direction = 'input' | 'output';

/** Schemas of one direction under their names. */
function createComponents(io: Direction) {
  const ending = io === 'input' ? 'In' : 'Out';
  const registry = z.registry<{ id: string }>();
  const known = new Map<z.ZodType, string>();
  const name = (schema: z.ZodType, as = `Schema${known.size + 1}`) => {
    if (known.has(schema)) return known.get(schema)!;
    known.set(schema, `${as}${ending}`);
    registry.add(schema, { id: `${as}${ending}` });
    return `${as}${ending}`;
  };
  for (const [as, schema] of SHARED) name(schema, as);
  return {
    reference: (schema: z.ZodType): Json => ({ $ref: uri(name(schema)) }),
    all(): Json {
      const { schemas } = z.toJSONSchema(registry, { io, uri, unrepresentable: 'any' });
      return Object.fromEntries(
        Object.entries(schemas).map(([id, { $schema: _, $id: __, ...json }]) => [id, json]),
      );
    },
  };
}

const uri = (id: string) => `#/components/schemas/${id}`;

function schemaOf(schema: z.ZodType, io: Direction): Json {
  const { $schema: _, ...json } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Json;
  return json;
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

function answers(
  route: RouteDescription,
  { reference }: ReturnType<typeof createComponents>,
): Json {
  const { answer, status = 200 } = route;
  const content =
    typeof answer === 'string'
      ? { [answer]: {} }
      : { 'application/json': { schema: reference(answer) } };
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
  const sent = createComponents('input');
  const answered = createComponents('output');
  const paths: Record<string, Json> = {};
  for (const route of ROUTES) {
    const { method, path, summary, body } = route;
    const content =
      body === 'file'
        ? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
        : body && { 'application/json': { schema: sent.reference(body) } };
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
        responses: answers(route, answered),
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
    components: {
      schemas: { Problem: schemaOf(problem, 'output'), ...sent.all(), ...answered.all() },
    },
  };
  return `${JSON.stringify(document, null, 1)}\n`;
}
