import express, { type Request, type RequestHandler, type Response } from 'express';
import { isStorable } from '@karyotome/contract';
import { sendProblem } from './problems.ts';
import { Refusal } from '../refusal.ts';

/*
 * How much one request may ask of the server, before any of it is read: its size by its address, how slowly it may come in,
 * and that its address can be looked up at all.
 */

const KIB = 1024;
const MIB = 1024 * KIB;

interface BodyLimit {
  readonly path: RegExp;
  readonly bytes: number;
}

/** What takes more than a form: by address, the first that fits. */
const LIMITS: readonly BodyLimit[] = [
  { path: /^\/session$/, bytes: 4 * KIB },
  { path: /^\/opinion-links\/[^/]+$/, bytes: 128 * KIB },
  // 200 entries, each with a note of 2,000 characters at most.
  { path: /^\/rounds\/entries$/, bytes: MIB },
  { path: /^\/taken(\/preview)?$/, bytes: 64 * MIB },
  { path: /^\/import$/, bytes: 4096 * MIB },
  { path: /^\/imports$/, bytes: 16 * MIB },
  { path: /^\/(incubators|rooms)\/[^/]+\/readings\/import$/, bytes: 8 * MIB },
  { path: /^\/(animals|clutches)\/[^/]+\/pictures$/, bytes: 25 * MIB },
];
const DEFAULT_BYTES = 100 * KIB;

/** The largest body that an address takes, in bytes. @param path - without `/api/v1` */
export function bodyLimit(path: string): number {
  return LIMITS.find((limit) => limit.path.test(path))?.bytes ?? DEFAULT_BYTES;
}

/** A form is there at once; a file may come over a slow line, as long as it goes on coming. */
const FORM_MS = 30_000;
const CHECK_MS = 30_000;
/** Per CHECK_MS: a line of 1 KiB/s is kept waiting for. */
const LEAST_BYTES = 30 * KIB;

const tooSlow = (): Refusal =>
  new Refusal('too-slow', 'The request came in too slowly. Nothing of it was kept: send it again.');

/**
 * Refuses by the length that is announced, and ends what comes in more slowly than a person would send it. The length itself
 * is counted by whoever reads the body.
 */
export const limitBody: RequestHandler = (request, response, next) => {
  const limit = bodyLimit(request.path);
  const length = Number(request.get('Content-Length') ?? 0);
  if (length > limit) return next(tooLarge(limit));
  if (length > 0 || request.get('Transfer-Encoding') !== undefined)
    endIfSlow(request, response, limit <= MIB);
  next();
};

function endIfSlow(request: Request, response: Response, isForm: boolean): void {
  let before = 0;
  let came = 0;
  const timer = setInterval(
    () => {
      if (!isForm && came - before >= LEAST_BYTES) {
        before = came;
        return;
      }
      stop();
      response.once('finish', () => request.destroy());
      if (response.headersSent) request.destroy();
      else sendProblem(response.set('Connection', 'close'), tooSlow());
    },
    isForm ? FORM_MS : CHECK_MS,
  );
  timer.unref();
  const count = (part: Buffer): void => void (came += part.length);
  const stop = (): void => {
    clearInterval(timer);
    request.off('data', count);
  };
  // Listening for data at once would start the stream before anybody reads it.
  request.once('resume', () => request.on('data', count));
  request.once('end', stop).once('close', stop);
}

export function tooLarge(limit: number): Refusal {
  const most = limit >= MIB ? `${limit / MIB} MiB` : `${limit / KIB} KiB`;
  return new Refusal('too-large', `The body is larger than the ${most} that this address takes.`, [
    { field: 'body', code: 'too-large', message: `is too large: at most ${most}` },
  ]);
}

/** Reads a JSON body up to what its address takes. The bytes' own digest is kept: a repetition is known by it. */
export function readJson(keepBytes: (request: Request, bytes: Buffer) => void): RequestHandler {
  const parsers = new Map<number, RequestHandler>();
  return (request, response, next) => {
    const limit = bodyLimit(request.path);
    let parser = parsers.get(limit);
    if (!parser) {
      parser = express.json({ limit, verify: (req, _res, bytes) => keepBytes(req as Request, bytes) });
      parsers.set(limit, parser);
    }
    parser(request, response, (error?: unknown) => {
      const isTooLarge = (error as { status?: number } | undefined)?.status === 413;
      next(isTooLarge ? tooLarge(limit) : error);
    });
  };
}

/** An address with characters that no name here has names nothing. */
export const refuseStrangeAddress: RequestHandler = (request, _response, next) => {
  let text: string;
  try {
    text = decodeURIComponent(request.path);
  } catch {
    return next(new Refusal('not-found', 'There is nothing at this address.'));
  }
  if (!isStorable(text)) return next(new Refusal('not-found', 'There is nothing at this address.'));
  for (const [name, value] of Object.entries(request.query))
    if (typeof value !== 'string' || value.length > 2000 || !isStorable(value) || !isStorable(name))
      return next(
        new Refusal('invalid', 'A parameter of the address cannot be read.', [
          {
            field: name.slice(0, 60).replace(/[^\w-]/g, '?'),
            code: 'parameter',
            message: 'must be given once, as text of at most 2000 characters',
          },
        ]),
      );
  next();
};
