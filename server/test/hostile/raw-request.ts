import http from 'node:http';
import type { Asker } from './farm.ts';

const agent = new http.Agent({ keepAlive: true, maxSockets: 64 });

interface Answer {
  readonly status: number;
  readonly text: string;
  readonly cookie: string | null;
}

/** One request, as it stands; nothing is set right on the way. */
export function raw(
  origin: string,
  method: string,
  path: string,
  headers: Record<string, string>,
  body: string | Buffer | null,
): Promise<Answer> {
  const { hostname, port } = new URL(origin);
  return new Promise((resolve, reject) => {
    const request = http.request(
      { hostname, port, method: method.toUpperCase(), path, headers, agent },
      (response) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('error', reject);
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            text: Buffer.concat(parts).toString('utf8'),
            cookie: response.headers['set-cookie']?.[0]?.split(';')[0] ?? null,
          }),
        );
      },
    );
    request.on('error', reject);
    request.end(body ?? undefined);
  });
}

export async function signIn(
  origin: string,
  email: string,
  password: string,
): Promise<{ ask: Asker; headers: Record<string, string> }> {
  const body = JSON.stringify({ email, password });
  const answer = await raw(origin, 'POST', '/api/v1/session', { 'Content-Type': 'application/json' }, body);
  if (answer.status !== 201) throw new Error(`Signing in: ${answer.status} ${answer.text}`);
  const { csrfToken } = JSON.parse(answer.text) as { csrfToken: string };
  const headers = { Cookie: answer.cookie!, 'X-CSRF-Token': csrfToken };
  const ask: Asker = async (method, path, sent, more = {}) => {
    const isBytes = Buffer.isBuffer(sent);
    const { status, text } = await raw(
      origin,
      method,
      `/api/v1${path}`,
      {
        ...headers,
        ...(sent === undefined || isBytes ? {} : { 'Content-Type': 'application/json' }),
        ...more,
      },
      sent === undefined ? null : isBytes ? sent : JSON.stringify(sent),
    );
    return { status, body: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text };
  };
  return { ask, headers };
}
