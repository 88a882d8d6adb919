import { afterEach, expect, test, vi } from 'vitest';
import { ProblemError, request, useCsrfToken, whenSignedOut } from './client.ts';

afterEach(() => vi.unstubAllGlobals());

const answer = (status: number, body: unknown): Response =>
  new Response(body === undefined ? null : JSON.stringify(body), { status });
const stub = (...answers: (Response | Error)[]) => {
  const calls: { url: string; headers: Record<string, string> }[] = [];
  vi.stubGlobal('fetch', (url: string, init: { headers: Record<string, string> }) => {
    calls.push({ url, headers: init.headers });
    const next = answers.shift()!;
    return next instanceof Error ? Promise.reject(next) : Promise.resolve(next);
  });
  return calls;
};

test('a write carries its token, its version and one key, also when it is sent again', async () => {
  useCsrfToken('token');
  const calls = stub(new Error('line dropped'), answer(201, { id: '1' }));
  expect(await request('PATCH', '/animals/1', { body: { name: 'X' }, version: 3 })).toEqual({ id: '1' });
  expect(calls).toHaveLength(2);
  expect(calls[0]!.headers).toMatchObject({ 'X-CSRF-Token': 'token', 'If-Match': '"3"' });
  expect(calls[0]!.headers['Idempotency-Key']).toBe(calls[1]!.headers['Idempotency-Key']);
});

test('a refusal keeps the field of every broken rule', async () => {
  stub(
    answer(422, {
      type: 'x',
      title: 'No',
      status: 422,
      errors: [{ field: 'number', code: 'any.required', message: 'is missing' }],
    }),
  );
  const error = await request('POST', '/animals', { body: {} }).catch((caught: unknown) => caught);
  expect(error).toBeInstanceOf(ProblemError);
  expect((error as ProblemError).errors[0]).toMatchObject({ field: 'number' });
});

test('a session that ended is told once, and asking who we are is no ending', async () => {
  const ended = vi.fn();
  whenSignedOut(ended);
  stub(answer(401, { title: 'x', status: 401 }), answer(401, { title: 'x', status: 401 }));
  await request('GET', '/session').catch(() => undefined);
  expect(ended).not.toHaveBeenCalled();
  await request('GET', '/animals').catch(() => undefined);
  expect(ended).toHaveBeenCalledOnce();
});
