import type { NewInvitation, Page, SessionView } from '@karyotome/contract';
import request from 'supertest';
import { expect } from 'vitest';
import type { TestApp, TestClient } from './test-app.ts';

export const NEW_PASSWORD = 'nine herons at dusk';

/** Invites people and lets them in. @param app - read when it is needed, like the owner who invites */
export function peopleActs(app: () => TestApp, owner: () => TestClient) {
  let turn = 0;
  const items = async <T>(client: TestClient, path: string): Promise<T[]> =>
    ((await client.get(`${path}?limit=200`)).body as Page<T>).items;
  const sessionOf = async (client: TestClient): Promise<SessionView> =>
    (await client.get('/session')).body as SessionView;
  async function invited(role: string, more: object = {}): Promise<NewInvitation> {
    const answer = await owner().post('/invitations', { name: 'Ida', role, ...more });
    expect(answer.status).toBe(201);
    return answer.body as NewInvitation;
  }
  /** Somebody without a session takes an invitation. @returns what they can do in their session */
  async function joined(token: string, more: object = {}) {
    const agent = request.agent(app().express);
    const email = `person-${++turn}@example.test`;
    const body = { token, email, name: 'Ida Marsh', password: NEW_PASSWORD, ...more };
    const answer = await agent.post('/api/v1/join').send(body);
    const session = answer.body as SessionView;
    const headers = { 'X-CSRF-Token': session.csrfToken ?? '' };
    return {
      answer,
      session,
      get: (path: string) => agent.get(`/api/v1${path}`),
      put: (path: string, data: object, more: Record<string, string> = {}) =>
        agent
          .put(`/api/v1${path}`)
          .set({ ...headers, ...more })
          .send(data),
      post: (path: string, data: object) => agent.post(`/api/v1${path}`).set(headers).send(data),
      delete: (path: string) => agent.delete(`/api/v1${path}`).set(headers),
    };
  }
  /** Failed attempts before do not count any more. */
  const forgetFailures = () => app().database.sequelize.query('delete from rate_limits');
  return { items, sessionOf, invited, joined, forgetFailures };
}
