import { afterEach, expect, test, vi } from 'vitest';
import {
  asAct,
  ProblemError,
  request,
  setAccount,
  setCsrfToken,
  whenSignedOut,
  whenStale,
  type Act,
} from './client.ts';

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
  setCsrfToken('token');
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
  const nobody = { type: 'urn:karyotome:problem:not-signed-in', title: 'x', status: 401 };
  stub(answer(401, nobody), answer(401, nobody));
  await request('GET', '/session').catch(() => undefined);
  expect(ended).not.toHaveBeenCalled();
  await request('GET', '/animals').catch(() => undefined);
  expect(ended).toHaveBeenCalledOnce();
});

const keyOf = (call: { headers: Record<string, string> }): string => call.headers['Idempotency-Key']!;
const lineBroke = (times: number): Error[] => Array.from({ length: times }, () => new Error('line dropped'));
const weigh = (act: Act, massG: number): Promise<unknown> =>
  asAct(act, () => request('POST', '/animals/1/records', { body: { massG } }));

test('an act keeps its key until it was answered: sent again by hand, it still takes effect once', async () => {
  vi.useFakeTimers();
  const act: Act = { key: null };
  const calls = stub(...lineBroke(3), answer(503, { title: 'x', status: 503 }), answer(201, { id: '1' }));
  const first = weigh(act, 345).catch((caught: unknown) => caught);
  await vi.runAllTimersAsync();
  expect(await first).toBeInstanceOf(ProblemError);
  expect(act.key).toBe(keyOf(calls[0]!));
  // Nor does "come back in a moment" tell whether it took effect.
  await weigh(act, 345).catch(() => undefined);
  expect(await weigh(act, 345)).toEqual({ id: '1' });
  expect(new Set(calls.map(keyOf)).size).toBe(1);
  expect(act.key).toBeNull();
  vi.useRealTimers();
});

test('what was refused is answered: corrected, it is another act', async () => {
  const act: Act = { key: null };
  const calls = stub(answer(422, { title: 'x', status: 422 }), answer(201, { id: '1' }));
  await weigh(act, -1).catch(() => undefined);
  expect(act.key).toBeNull();
  await weigh(act, 345);
  expect(keyOf(calls[0]!)).not.toBe(keyOf(calls[1]!));
});

test('changed before it is sent again, it says that the first had arrived, and enters nothing twice', async () => {
  vi.useFakeTimers();
  const act: Act = { key: null };
  const reused = { type: 'urn:karyotome:problem:key-reused', title: 'x', status: 409 };
  stub(...lineBroke(3), answer(409, reused));
  const first = weigh(act, 345).catch((caught: unknown) => caught);
  await vi.runAllTimersAsync();
  await first;
  vi.useRealTimers();
  await expect(weigh(act, 354)).rejects.toThrow('What you sent before had arrived');
  expect(act.key).toBeNull();
});

test('a write says whose page it is', async () => {
  setAccount('an-account');
  const calls = stub(answer(201, { id: '1' }), answer(200, {}));
  await request('POST', '/animals', { body: {} });
  await request('GET', '/animals');
  expect(calls.map(({ headers }) => headers['Account-Id'])).toEqual(['an-account', undefined]);
  setAccount(null);
});

test('what is given up is told apart from a line that broke, and not tried again', async () => {
  const giveUp = new AbortController();
  const calls: unknown[] = [];
  vi.stubGlobal('fetch', (url: string) => {
    calls.push(url);
    giveUp.abort();
    return Promise.reject(new Error('aborted'));
  });
  const error = await request('POST', '/imports', { signal: giveUp.signal }).catch(
    (caught: unknown) => caught,
  );
  expect((error as ProblemError).problem.type).toBe('urn:karyotome:problem:given-up');
  expect(calls).toHaveLength(1);
});

test('a page whose session was renewed beside it sends once more; another person’s session gets nothing of it', async () => {
  const stale = { type: 'urn:karyotome:problem:stale-page', title: 'x', status: 403 };
  let isSame = true;
  whenStale(() => {
    setCsrfToken('renewed');
    return Promise.resolve(isSame);
  });
  const calls = stub(answer(403, stale), answer(201, { id: '1' }), answer(403, stale));
  expect(await request('POST', '/animals', { body: {} })).toEqual({ id: '1' });
  expect(calls[1]!.headers['X-CSRF-Token']).toBe('renewed');
  expect(keyOf(calls[0]!)).toBe(keyOf(calls[1]!));
  isSame = false;
  await expect(request('POST', '/animals', { body: {} })).rejects.toThrow('x');
  expect(calls).toHaveLength(3);
  whenStale(() => Promise.resolve(false));
});
