import { ROUTES, type Route } from '@karyotome/contract';
import { h, type VNode } from 'vue';
import { API_EXAMPLES, WEBHOOK_EXAMPLES, type ApiExample } from '../../http/api-examples.ts';
import type { PageContent } from './document.ts';

/* The description of the API as a page that people read: made of the OpenAPI document, so the two cannot differ. */

interface Schema {
  readonly type?: string | readonly string[];
  readonly format?: string;
  readonly enum?: readonly unknown[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly items?: Schema;
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly minimum?: number;
  readonly maximum?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
}

interface Parameter {
  readonly name: string;
  readonly in: string;
  readonly required: boolean;
  readonly description?: string;
}

interface Operation {
  readonly operationId: string;
  readonly summary: string;
  readonly description: string;
  readonly parameters: readonly Parameter[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
  readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, unknown>> }>>;
}

/** What of an OpenAPI document is read here. */
export interface Described {
  readonly info: { readonly description: string };
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
}

interface Field {
  readonly name: string;
  readonly type: string;
  readonly isRequired: boolean;
}

const code = (text: string): VNode => h('code', text);

/** What a value may be, in a few words: "number, 0 to 10", "one of rat, mouse". */
function typeWords(schema: Schema): string {
  const kinds = schema.anyOf ?? schema.oneOf;
  if (kinds) return [...new Set(kinds.map(typeWords))].join(' or ');
  if (schema.enum) return `one of ${schema.enum.map(String).join(', ')}`;
  if (schema.items) return `list of ${typeWords(schema.items)}`;
  const type = Array.isArray(schema.type) ? schema.type.join(' or ') : String(schema.type ?? 'any');
  const { minimum, maximum, minLength, maxLength } = schema;
  const limits = [
    schema.format,
    minimum === undefined ? null : `from ${minimum}`,
    maximum === undefined ? null : `to ${maximum}`,
    minLength ? `at least ${minLength} characters` : null,
    maxLength === undefined ? null : `at most ${maxLength} characters`,
  ];
  return [type, ...limits.filter((limit) => limit != null)].join(', ');
}

/** The fields of a body, those within others by their path. */
function fieldsOf(schema: Schema, path = ''): Field[] {
  return Object.entries(schema.properties ?? {}).flatMap(([name, field]) => {
    const whole = path === '' ? name : `${path}.${name}`;
    const within = field.properties ? fieldsOf(field, whole) : [];
    const ofItems = field.items?.properties ? fieldsOf(field.items, `${whole}[]`) : [];
    return [
      { name: whole, type: typeWords(field), isRequired: schema.required?.includes(name) ?? false },
      ...within,
      ...ofItems,
    ];
  });
}

const table = (head: readonly string[], rows: readonly (VNode | string)[][]): VNode =>
  h('table', [
    h(
      'thead',
      h(
        'tr',
        head.map((title) => h('th', { scope: 'col' }, title)),
      ),
    ),
    h(
      'tbody',
      rows.map((row) =>
        h(
          'tr',
          row.map((cell) => h('td', [cell])),
        ),
      ),
    ),
  ]);

function bodyOf({ requestBody }: Operation): VNode[] {
  if (!requestBody) return [];
  return Object.entries(requestBody.content).map(([type, { schema }]) => {
    const fields = fieldsOf(schema);
    return h('div', [
      h('p', ['Body: ', code(type)]),
      fields.length === 0
        ? h('p', { class: 'soft' }, typeWords(schema))
        : table(
            ['Field', 'What', ''],
            fields.map(({ name, type: what, isRequired }) => [code(name), what, isRequired ? 'needed' : '']),
          ),
    ]);
  });
}

function operation(method: string, path: string, described: Operation): VNode {
  const { operationId, summary, description, parameters, responses } = described;
  const [status, answer] = Object.entries(responses).find(([name]) => name !== 'default')!;
  const type = Object.keys(answer.content ?? {})[0];
  return h('details', { id: operationId }, [
    h('summary', [h('strong', method.toUpperCase()), ' ', code(path), ' ', h('span', summary)]),
    h('p', description),
    parameters.length > 0
      ? table(
          ['Parameter', 'Where', ''],
          parameters.map(({ name, in: where, required, description: what }) => [
            code(name),
            what ? `${where}. ${what}` : where,
            required ? 'needed' : '',
          ]),
        )
      : null,
    ...bodyOf(described),
    h('p', ['Answer: ', code(status), ...(type ? [' ', code(type)] : [])]),
  ]);
}

const INTRODUCTION = [
  'A program signs in with Authorization: Bearer and a token that somebody makes for it under Your account: to look, or to record as well. It may never do more than its person.',
  'What is refused is answered as application/problem+json (RFC 9457), with each broken rule by its field. A write with an Idempotency-Key takes effect once, however often it is sent. An update of something that has a version carries it in If-Match; a stale one is answered with 412 and changes nothing.',
  'Lists are answered page by page: limit (at most 200), after (the cursor in next), sort, and the filters named below. A read carries an ETag.',
];

const json = (value: unknown): VNode => h('pre', JSON.stringify(value, null, 2));

/** A request as it is typed at a terminal, and its answer. */
function example({ title, route, params = {}, query, body, status, answer }: ApiExample): VNode {
  const { method, path }: Route = ROUTES[route];
  const filled = path.replace(/:(\w+)/g, (_, name: string) => params[name] ?? name);
  const asked = query ? `?${new URLSearchParams(query).toString()}` : '';
  const lines = [
    `curl -X ${method.toUpperCase()} "$ADDRESS/api/v1${filled}${asked}" \\`,
    `  -H "Authorization: Bearer $TOKEN"${body ? ' \\' : ''}`,
    ...(body ? ['  -H "Content-Type: application/json" \\', `  -d '${JSON.stringify(body)}'`] : []),
  ];
  return h('div', [
    h('h3', title),
    h('pre', lines.join('\n')),
    h('p', ['Answer: ', code(String(status))]),
    ...(answer ? [json(answer)] : []),
  ]);
}

const examplesOf = (): VNode =>
  h('section', { id: 'examples' }, [
    h('h2', 'Examples'),
    h(
      'p',
      'One after the other, as a program goes. Of each answer some fields are shown; ids are those of your server.',
    ),
    ...API_EXAMPLES.map(example),
  ]);

const webhooks = (): VNode =>
  h('section', { id: 'webhooks-told' }, [
    h('h2', 'Webhooks'),
    h('p', [
      'Somebody who may change people and rules names, in Settings or at ',
      code('/webhooks'),
      ', an address that is told of changes. Messages are signed as Standard Webhooks says, come once or more often under the same ',
      code('webhook-id'),
      ', and hold nothing of people.',
    ]),
    ...Object.entries(WEBHOOK_EXAMPLES).map(([event, { says, body }]) =>
      h('div', [h('h3', event), h('p', says), json(body)]),
    ),
  ]);

export function apiPage({ info, paths }: Described): PageContent {
  const groups = new Map<string, VNode[]>();
  for (const [path, operations] of Object.entries(paths)) {
    const group = path.split('/')[1]!;
    const shown = Object.entries(operations).map(([method, one]) => operation(method, path, one));
    groups.set(group, [...(groups.get(group) ?? []), ...shown]);
  }
  return {
    title: 'API of Karyotome',
    description: info.description,
    address: '/api/docs',
    isUnlisted: true,
    body: [
      h('main', { class: 'api' }, [
        h('h1', 'API'),
        h('p', info.description),
        ...INTRODUCTION.map((text) => h('p', text)),
        h('p', [
          'Everything below is under ',
          code('/api/v1'),
          '. For programs that read descriptions: ',
          h('a', { href: '/api/v1/openapi.json' }, 'openapi.json'),
          ' (OpenAPI 3.1).',
        ]),
        examplesOf(),
        webhooks(),
        ...[...groups].map(([group, shown]) => h('section', { id: group }, [h('h2', group), ...shown])),
      ]),
    ],
  };
}
