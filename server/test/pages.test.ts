import sharp from 'sharp';
import type { Page } from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { version as ifVersion } from './bench-acts.ts';
import { breederOf } from './breeder.ts';
import { EUROPE, pageReader } from './page-reader.ts';
import { ago, TODAY } from './days.ts';
import { readCode } from './read-code.ts';
import { listening, startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { racksOf } from './wholes.ts';

/* Pages for everybody: plain HTML, read here by a parser of its own, without any script being run. */

const FRONT = '/c/test-collection';

let app: TestApp;
let owner: TestClient;
let server: Awaited<ReturnType<typeof listening>>;
let slug: string;
let youngId: string;
let damId: string;
const { created, animal } = breederOf(() => owner);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  server = await listening(app.express);
  damId = await animal('D-1', 'female', 'pastel spider het clown', 1800);
  const sireId = await animal('S-1', 'male', '50% het clown', 900);
  const parents = { damId, sireId, hatchedOn: ago(120) };
  youngId = (
    await created('/animals', { number: 'Y-1', name: 'Sedge', sex: 'female', massG: 132, ...parents })
  ).id;
  await record(youngId, 'identification', { genes: 'pastel spider', sure: 'probable', by: 'MARKER-eye' });
  await record(youngId, 'weight', { massG: 90 }, ago(60));
  await record(
    youngId,
    'feeding',
    { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true },
    ago(5),
  );
  await record(youngId, 'shed', { stage: 'shed', complete: true }, ago(20));
  const png = await sharp({ create: { width: 1800, height: 1200, channels: 3, background: '#884' } })
    .png()
    .toBuffer();
  expect((await owner.upload(`/animals/${youngId}/pictures`, 'image/png', png)).status).toBe(201);
  await owner.put(
    `/animals/${youngId}/offer`,
    { price: 450, currency: 'EUR', text: 'Eats <well> & is calm.' },
    ifVersion(0),
  );
  await owner.post('/status-events', { animalIds: [youngId], kind: 'offered', on: TODAY });
  slug = ((await owner.put(`/animals/${youngId}/publication`, {})).body as { slug: string }).slug;
});
afterAll(async () => {
  await server.close();
  await app.close();
});

async function record(id: string, kind: string, body: object, on = TODAY): Promise<void> {
  await created(`/animals/${id}/records`, { kind, on, body });
}
const { get, read } = pageReader(() => server.origin);
/** Pages may be a second old; what was written a moment ago is looked for until then. */
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 1_050));

describe('the page of an animal', () => {
  test('says what is claimed, what it rests on, how sure, and what would make it surer', async () => {
    const { response, document, text } = await read(`/p/${slug}`);
    expect(response.status).toBe(200);
    expect(document.querySelectorAll('script:not([type="application/ld+json"])')).toHaveLength(0);
    for (const words of ['Y-1 ♀ Sedge', 'Pastel', '58% het Clown', '€450', 'for sale', 'after all evidence'])
      expect(text).toContain(words);
    for (const words of [
      'Eats <well> & is calm.',
      '132 g',
      '1 of 1 taken',
      'wobble',
      'Would make it surer',
      'seen by the breeder',
      'D-1',
      'S-1',
    ])
      expect(text).toContain(words);
    expect(document.querySelector('svg')!.getAttribute('aria-label')).toContain('1 of 1 meal taken');
    expect(text).toContain('did:key:z6Mk');
  });

  test('is small, compressed, and sent once: 304 afterwards', async () => {
    const raw = await get(`/p/${slug}`, { ...EUROPE, 'Accept-Encoding': 'gzip' });
    expect(raw.headers.get('content-encoding')).toBe('gzip');
    const bytes = Buffer.from(await raw.arrayBuffer());
    // Undici unpacks what was packed; packed again it is as large as on the wire.
    const { gzipSync } = await import('node:zlib');
    expect(gzipSync(bytes).length).toBeLessThan(30_000);
    const again = await get(`/p/${slug}`, {
      ...EUROPE,
      'If-None-Match': raw.headers.get('etag')!,
      // As a browser asks that has it; fetch would ask for no stored answer.
      'Cache-Control': 'max-age=0',
    });
    expect(again.status).toBe(304);
    expect(raw.headers.get('set-cookie')).toBeNull();
  });

  test('has a preview and structured data with its own address', async () => {
    const { document, meta } = await read(`/p/${slug}`);
    const address = `${server.origin}/p/${slug}`;
    expect(document.querySelector('link[rel=canonical]')!.getAttribute('href')).toBe(address);
    expect(meta('og:url')).toBe(address);
    expect(meta('og:title')).toContain('Y-1');
    expect((await get(new URL(meta('og:image')!).pathname)).status).toBe(200);
    const product = JSON.parse(document.querySelector('script')!.textContent!) as Record<string, unknown>;
    expect(product).toMatchObject({
      '@context': 'https://schema.org',
      '@type': 'Product',
      sku: 'Y-1',
      offers: {
        '@type': 'Offer',
        price: 450,
        priceCurrency: 'EUR',
        availability: 'https://schema.org/InStock',
      },
    });
  });

  test('has its picture in sizes that fit, as WebP', async () => {
    const { document } = await read(`/p/${slug}`);
    const image = document.querySelector('main img')!;
    const sizes = image
      .getAttribute('srcset')!
      .split(', ')
      .map((one) => one.split(' ') as [string, string]);
    expect(sizes.map(([, width]) => width)).toEqual(['480w', '960w', '1600w']);
    for (const [path, width] of sizes) {
      const response = await get(path);
      expect(response.headers.get('content-type')).toBe('image/webp');
      const { width: wide, format } = await sharp(Buffer.from(await response.arrayBuffer())).metadata();
      expect([format, wide]).toEqual(['webp', parseInt(width)]);
    }
    expect((await get(sizes[0]![0].replace(/480$/, '123'))).status).toBe(404);
  });

  test('hides the ancestors that the breeder hides, names those that are named', async () => {
    const offer = { price: 450, currency: 'EUR', ancestors: { [damId]: 'hidden' } };
    await owner.put(`/animals/${youngId}/offer`, offer, ifVersion(1));
    await settled();
    const { text } = await read(`/p/${slug}`);
    expect(text).not.toContain('D-1');
    expect(text).toContain('dam, not named');
    await owner.put(`/animals/${youngId}/offer`, { price: 450, currency: 'EUR' }, ifVersion(2));
  });

  test('follows the language of whoever reads in its days', async () => {
    const day = new Date(`${TODAY}T00:00:00Z`);
    const inUs = day.toLocaleDateString('en-US', { dateStyle: 'medium', timeZone: 'UTC' });
    expect(await (await get(`/p/${slug}`, { 'Accept-Language': 'en-US' })).text()).toContain(inUs);
  });
});

describe('the front page', () => {
  test('lists what is offered, and filters without a script', async () => {
    const { text, document } = await read(FRONT);
    expect(text).toContain('Y-1');
    expect(document.querySelector('form')!.getAttribute('method')).toBe('get');
    const shown = async (query: string): Promise<boolean> =>
      (await read(`${FRONT}?${query}`)).text.includes('Y-1');
    for (const query of ['gene=pastel', 'sex=female', 'price=450', 'from=3&to=6', 'gene=&price='])
      expect(await shown(query), query).toBe(true);
    for (const query of ['gene=clown+pied', 'sex=male', 'price=449', 'from=6', 'ready=1'])
      expect(await shown(query), query).toBe(false);
  });

  test('does not mind strange questions', async () => {
    for (const query of [
      'page=-1',
      'page=1e99',
      'price=abc',
      'gene=%00',
      `gene=${'x'.repeat(5000)}`,
      'sex[]=a&sex=b',
    ])
      expect((await get(`${FRONT}?${query}`)).status, query).toBe(200);
    for (const path of ['/c/nothing-here', '/c/%00', '/p/%2e%2e', '/p/nothing', "/c/x'--"])
      expect((await get(path)).status, path).toBe(404);
  });

  // JSON Feed 1.1 (jsonfeed.org/version/1.1): required members, types, and dates as RFC 3339.
  test('has a feed by the rules of JSON Feed 1.1', async () => {
    const response = await get(`${FRONT}/feed.json`);
    expect(response.headers.get('content-type')).toContain('application/feed+json');
    const feed = (await response.json()) as Record<string, unknown> & { items: Record<string, unknown>[] };
    expect(feed).toMatchObject({
      version: 'https://jsonfeed.org/version/1.1',
      feed_url: `${server.origin}${FRONT}/feed.json`,
    });
    expect(typeof feed['title']).toBe('string');
    for (const item of feed.items) {
      expect(typeof item['id']).toBe('string');
      expect(typeof item['content_text']).toBe('string');
      for (const name of ['date_published', 'date_modified'])
        expect(item[name]).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/);
      expect((item['tags'] as unknown[]).every((tag) => typeof tag === 'string')).toBe(true);
      // Extensions begin with an underscore and are objects.
      expect(typeof item['_offer']).toBe('object');
    }
  });
});

test('nothing private stands in any public page, feed, statement, picture or package', async () => {
  const MARK = 'MARKER';
  await owner.patch(`/animals/${youngId}`, { note: `${MARK} note` }, ifVersion(await versionOf(youngId)));
  await owner.patch(
    `/animals/${damId}`,
    { name: `${MARK} dam`, note: `${MARK}` },
    ifVersion(await versionOf(damId)),
  );
  await record(youngId, 'note', { text: `${MARK} text` });
  await created(`/animals/${youngId}/records`, {
    kind: 'weight',
    on: TODAY,
    body: { massG: 140 },
    note: `${MARK} weight`,
  });
  await record(youngId, 'sex', { sex: 'female', method: 'popped', sure: 'certain', by: `${MARK} hand` });
  await record(youngId, 'identification', {
    genes: 'pastel spider',
    sure: 'probable',
    by: `${MARK} eye`,
    override: `${MARK} why`,
  });
  const [ladder] = ((await owner.get('/ladders')).body as Page<{ id: string }>).items;
  await created('/racks', {
    room: `${MARK} room`,
    name: `${MARK} rack`,
    levels: 1,
    tubsPerLevel: 1,
    ladderId: ladder!.id,
    stepPosition: 0,
  });
  const [rack] = await racksOf((path) => owner.get(path));
  await record(youngId, 'move', { toTubId: rack!.tubs[0]!.id, reason: `${MARK} reason` });
  const person = { name: `${MARK} buyer`, email: 'marker@example.test', phone: MARK, note: MARK };
  const personId = (await created('/persons', person)).id;
  await owner.post('/status-events', {
    animalIds: [youngId],
    kind: 'reserved',
    on: TODAY,
    note: MARK,
    details: { personId },
  });
  await owner.post(`/animals/${youngId}/statements`, {});
  await settled();
  const page = await read(`/p/${slug}`);
  expect(page.text).toContain('reserved');
  const paths = [
    `/p/${slug}`,
    `/p/${slug}/statements/1`,
    FRONT,
    `${FRONT}/feed.json`,
    `${FRONT}/inquiry?animal=${slug}`,
    `/api/v1/public/${slug}`,
  ];
  const newest = (await (await get(`/api/v1/public/${slug}`)).json()) as {
    statements: { statement: number }[];
  };
  for (const { statement } of newest.statements) paths.push(`/api/v1/public/${slug}/statements/${statement}`);
  for (const path of paths) {
    const response = await get(path);
    expect(response.status, path).toBe(200);
    expect((await response.text()).toUpperCase(), path).not.toContain(MARK);
  }
});

async function versionOf(id: string): Promise<number> {
  return ((await owner.get(`/animals/${id}`)).body as { version: number }).version;
}

test('a statement’s page bears its own address as a code', async () => {
  const text = await (await get(`/p/${slug}/statements/1`)).text();
  const drawing = /<p class="code">(<svg.*?<\/svg>)/.exec(text)![1]!;
  const svg = drawing.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg" width="300"');
  const found = await readCode(Buffer.from(svg));
  expect(new URL(found!).pathname).toBe(`/p/${slug}/statements/1`);
});

test('a withdrawn page says so, and what was signed stays readable', async () => {
  expect((await owner.delete(`/animals/${youngId}/publication`)).status).toBe(204);
  await settled();
  const gone = await read(`/p/${slug}`);
  expect(gone.response.status).toBe(410);
  expect(gone.text).toContain('withdrawn');
  expect(gone.text).not.toContain('Pastel');
  const { response, text } = await read(`/p/${slug}/statements/1`);
  expect(response.status).toBe(200);
  expect(text).toContain('was withdrawn on');
  expect((await get(`/api/v1/public/${slug}/statements/1`)).status).toBe(200);
  expect((await get(`/api/v1/public/${slug}`)).status).toBe(404);
  expect((await read(FRONT)).text).not.toContain('Y-1');
});
