import type { CookieOptions, Response } from 'express';

interface Connection {
  /** Whether people come by TLS alone. */
  readonly behindTls: boolean;
}

/** The name of the session's cookie. By TLS, browsers take one that begins so from this very host alone, and send it nowhere else. */
export const sessionCookie = ({ behindTls }: Connection): string =>
  behindTls ? '__Host-karyotome' : 'karyotome';

/** How the cookie is set, and taken away. */
export const cookieOptions = ({ behindTls }: Connection): CookieOptions => ({
  httpOnly: true,
  sameSite: 'lax',
  secure: behindTls,
  path: '/',
});

/** Takes the cookie away, and what this browser kept of answers: that must not reach the next person. */
export const clearSession = (response: Response, connection: Connection): Response =>
  response
    .set('Clear-Site-Data', '"cache"')
    .clearCookie(sessionCookie(connection), cookieOptions(connection));
