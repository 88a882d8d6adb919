import type { InquiryView, LetterView, Page } from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { breederOf } from './breeder.ts';
import { pageReader } from './page-reader.ts';
import { listening, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What a visitor asks, without an account. */

const FRONT = '/c/test-collection';

let app: TestApp;
let owner: TestClient;
let server: Awaited<ReturnType<typeof listening>>;
let youngId: string;
let slug: string;
const { animal } = breederOf(() => owner);
const { read } = pageReader(() => server.origin);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  server = await listening(app.express);
  youngId = await animal('Y-1', 'female', 'pastel', 300);
  slug = ((await owner.put(`/animals/${youngId}/publication`, {})).body as { slug: string }).slug;
});
afterAll(async () => {
  await server.close();
  await app.close();
});

describe('a question', () => {
  const ask = (fields: Record<string, string>, path = `${FRONT}/inquiry?animal=${slug}`): Promise<Response> =>
    fetch(`${server.origin}${path}`, {
      method: 'POST',
      body: new URLSearchParams(fields),
      redirect: 'manual',
    });
  const inbox = async (): Promise<InquiryView[]> =>
    ((await owner.get('/inquiries')).body as Page<InquiryView>).items;
  const QUESTION = { name: 'Cy Willow', email: 'cy@willow.example', text: 'Does it eat rats?' };

  test('lands in the inbox, and is marked as answered', async () => {
    const sent = await ask(QUESTION);
    expect([sent.status, sent.headers.get('location')]).toEqual([303, `${FRONT}/inquiry?sent=1`]);
    expect((await read(`${FRONT}/inquiry?sent=1`)).text).toContain('Sent');
    const [first] = await inbox();
    expect(first).toMatchObject({ ...QUESTION, animal: { id: youngId, number: 'Y-1' }, answeredAt: null });
    expect((await owner.post(`/inquiries/${first!.id}/answered`)).status).toBe(204);
    expect((await inbox())[0]!.answeredAt).not.toBeNull();
    // The breeder is written to as well, at once: it is a letter to themselves.
    const [letter] = ((await owner.get('/letters')).body as Page<LetterView>).items;
    expect(letter).toMatchObject({
      kind: 'question-asked',
      state: 'waiting',
      subject: 'Cy Willow asks about Y-1',
    });
  });

  test('that lacks something comes back with what was typed, and says what', async () => {
    const answer = await ask({ ...QUESTION, email: 'nowhere', text: '' });
    expect(answer.status).toBe(422);
    const html = await answer.text();
    expect(html).toContain('value="Cy Willow"');
    expect(html).toContain('text-problem');
    expect(html).toContain('email-problem');
    expect(await inbox()).toHaveLength(1);
  });

  test('of a program that fills in everything is not kept; too many are refused for a while', async () => {
    expect((await ask({ ...QUESTION, website: 'https://spam.example' })).status).toBe(303);
    expect(await inbox()).toHaveLength(1);
    const answers: number[] = [];
    for (let i = 0; i < 6; i++) answers.push((await ask(QUESTION)).status);
    expect(answers).toContain(429);
    expect(answers[0]).toBe(303);
    expect((await inbox()).length).toBeLessThanOrEqual(4);
  });

  test('does not show the breeder’s address', async () => {
    const { html } = await read(`${FRONT}/inquiry`);
    expect(html).not.toContain('@example.test');
  });
});
