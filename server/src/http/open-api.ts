import {
  bodySchemaOf,
  FILE_TYPES,
  type AnswerFormat,
  type Permission,
  type Route,
} from '@karyotome/contract';
import parse from 'joi-to-json';
import { API_EXAMPLES, WEBHOOK_EXAMPLES, type ApiExample } from './api-examples.ts';

/* The description of the API (OpenAPI 3.1), made of the table of routes and of the schemas that validate. */

const TITLES: Readonly<Record<Permission, string>> = {
  open: 'Anybody, without a session.',
  own: 'Whoever is signed in.',
  view: 'Whoever may look at the collection.',
  record: 'Whoever may record daily work.',
  breed: 'Whoever may breed and identify.',
  house: 'Whoever may move animals and edit racks.',
  sell: 'Whoever may publish and sell.',
  manage: 'Whoever may change people and rules.',
  destroy: 'The owner of the collection.',
};

const ANSWER_TYPES: Readonly<Record<AnswerFormat, string>> = {
  json: 'application/json',
  pdf: 'application/pdf',
  picture: 'image/*',
  calendar: 'text/calendar',
  events: 'text/event-stream',
  csv: 'text/csv',
  package: 'application/zip',
};

const header = (name: string, description: string, required: boolean) => ({
  name,
  in: 'header',
  description,
  required,
  schema: { type: 'string' },
});
const IF_MATCH = header('If-Match', 'The version that the update is based on, in double quotes.', true);
const IDEMPOTENCY_KEY = header(
  'Idempotency-Key',
  'Sent again with the same key, the request takes effect once. 8 to 200 printable characters.',
  false,
);

function parametersOf({ path, method, isVersioned, query = [], permission }: Route): object[] {
  const inPath = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string', ...(name === 'id' ? { format: 'uuid' } : {}) },
  }));
  const inQuery = query.map((name) => ({ name, in: 'query', required: false, schema: { type: 'string' } }));
  const isKeyed = method !== 'get' && permission !== 'open';
  return [...inPath, ...inQuery, ...(isVersioned ? [IF_MATCH] : []), ...(isKeyed ? [IDEMPOTENCY_KEY] : [])];
}

/** Examples by their title, as OpenAPI takes them; nothing where there are none. */
const named = (
  examples: readonly ApiExample[],
  valueOf: (example: ApiExample) => object | undefined,
): object => {
  const shown = examples.flatMap((example) => {
    const value = valueOf(example);
    return value === undefined ? [] : [[example.title, { value }] as const];
  });
  return shown.length === 0 ? {} : { examples: Object.fromEntries(shown) };
};

function requestBodyOf(route: Route, examples: readonly ApiExample[]): object | undefined {
  const body = bodySchemaOf(route);
  const { file } = route;
  if (body)
    return {
      required: true,
      content: {
        'application/json': {
          schema: parse(body, 'open-api-3.1'),
          ...named(examples, (example) => example.body),
        },
      },
    };
  if (!file) return undefined;
  const schema = { type: 'string', format: 'binary' };
  return { required: true, content: Object.fromEntries(FILE_TYPES[file].map((type) => [type, { schema }])) };
}

function responsesOf({ status, format = 'json' }: Route, examples: readonly ApiExample[]): object {
  const answers = examples.filter((example) => example.status === status);
  const content =
    status === 204 ? {} : { content: { [ANSWER_TYPES[format]]: named(answers, ({ answer }) => answer) } };
  return {
    [status]: { description: status === 204 ? 'Done.' : 'The answer.', ...content },
    default: { $ref: '#/components/responses/Problem' },
  };
}

const COMPONENTS = {
  securitySchemes: {
    session: {
      type: 'apiKey',
      in: 'cookie',
      name: 'karyotome',
      description: 'The session of a browser. Its writes carry the token of the session as X-CSRF-Token.',
    },
    token: {
      type: 'http',
      scheme: 'bearer',
      description: 'A token that a person made for a program, to look or to record.',
    },
  },
  responses: {
    Problem: {
      description: 'Refused, with every broken rule by its field (RFC 9457).',
      content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
    },
  },
  schemas: {
    Problem: {
      type: 'object',
      required: ['type', 'title', 'status'],
      properties: {
        type: { type: 'string' },
        title: { type: 'string' },
        status: { type: 'integer' },
        detail: { type: 'string' },
        requestId: { type: 'string' },
        errors: {
          type: 'array',
          items: {
            type: 'object',
            required: ['field', 'code', 'message'],
            properties: {
              field: { type: 'string' },
              code: { type: 'string' },
              message: { type: 'string' },
            },
          },
        },
      },
    },
  },
};

/** What programs are told, signed as Standard Webhooks says. */
const webhooksOf = (): object =>
  Object.fromEntries(
    Object.entries(WEBHOOK_EXAMPLES).map(([event, { says, body }]) => [
      event,
      {
        post: {
          summary: says,
          parameters: ['webhook-id', 'webhook-timestamp', 'webhook-signature'].map((name) =>
            header(name, 'As Standard Webhooks says.', true),
          ),
          requestBody: {
            required: true,
            content: {
              'application/json': { schema: { type: 'object' }, examples: { message: { value: body } } },
            },
          },
          responses: { '2XX': { description: 'Taken: it is not sent again.' } },
        },
      },
    ]),
  );

/** @param routes - by name, which becomes the operation's id */
export function describeApi(routes: Readonly<Record<string, Route>>): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [operationId, route] of Object.entries(routes)) {
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    const examples = API_EXAMPLES.filter((example) => example.route === operationId);
    const requestBody = requestBodyOf(route, examples);
    paths[path] = {
      ...paths[path],
      [route.method]: {
        operationId,
        summary: route.summary,
        description: `For: ${TITLES[route.permission]}`,
        ...(route.permission === 'open' ? { security: [] } : {}),
        parameters: parametersOf(route),
        ...(requestBody ? { requestBody } : {}),
        responses: responsesOf(route, examples),
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Karyotome',
      version: '1',
      description:
        'Records, genetics and husbandry of a collection of ball pythons. Dates are ISO 8601, moments RFC 3339, masses grams, temperatures degrees Celsius. What the server computed is facts: a code, and what it was found from.',
    },
    servers: [{ url: '/api/v1' }],
    security: [{ session: [] }, { token: [] }],
    paths,
    webhooks: webhooksOf(),
    components: COMPONENTS,
  };
}
