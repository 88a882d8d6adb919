import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { Refusal } from '../refusal.ts';

/*
 * Threads for what would keep the answering thread busy: reading files, drawing papers, packing answers. None of it touches
 * the database.
 */

/** Says how far a task is. */
export type Progress = (done: number, of: number) => void;

/** Name -> function of what can be run in a thread. Each task enters itself where it is written. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by declaration merging
export interface Tasks {}

/** How a thread is started, from the source (TypeScript) and from the bundle. @param at - the worker without its ending */
export function threadOptions(at: URL): { filename: string; execArgv: string[] } {
  const isSource = import.meta.url.endsWith('.ts');
  const name = at.pathname.slice(at.pathname.lastIndexOf('/') + 1);
  return {
    // In the bundle all workers lie beside the main file.
    filename: isSource ? `${at.href}.ts` : new URL(`./${name}.js`, import.meta.url).href,
    // Under a runner that reads TypeScript for the main thread only.
    execArgv: isSource ? ['--import', import.meta.resolve('tsx')] : [],
  };
}

const THREADS = 2;
const MOST_WAITING = 40;

let pool: Piscina | null = null;

function threads(): Piscina {
  pool ??= new Piscina({
    ...threadOptions(new URL('./tasks.worker', import.meta.url)),
    minThreads: 1,
    maxThreads: THREADS,
    idleTimeout: 60_000,
    // A file that grows without bound in memory ends its thread, not the server.
    resourceLimits: { maxOldGenerationSizeMb: 768 },
  });
  return pool;
}

/**
 * Runs a task in a thread.
 *
 * @param signal - ends it, wherever it is
 * @throws what the task threw; Refusals come back as such
 */
export async function inThread<Name extends keyof Tasks>(
  name: Name,
  input: Parameters<Tasks[Name]>[0],
  { signal, onProgress }: { signal?: AbortSignal; onProgress?: Progress } = {},
): Promise<Awaited<ReturnType<Tasks[Name]>>> {
  if (threads().queueSize >= MOST_WAITING)
    throw new Refusal('busy', 'Too many files are being read already. Try again in a moment.');
  const channel = onProgress ? new MessageChannel() : null;
  if (channel && onProgress)
    channel.port1.on('message', (progress: [number, number]) => onProgress(...progress));
  try {
    const answer = (await threads().run(
      { name, input, port: channel?.port2 ?? null },
      { ...(signal ? { signal } : {}), ...(channel ? { transferList: [channel.port2] } : {}) },
    )) as { value: unknown } | { refusal: ConstructorParameters<typeof Refusal> };
    if ('refusal' in answer) throw new Refusal(...answer.refusal);
    return answer.value as Awaited<ReturnType<Tasks[Name]>>;
  } catch (error) {
    if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new Refusal('too-complex', 'This file takes more memory than one may have here: split it.', {
        cause: error,
      });
    throw error;
  } finally {
    channel?.port1.close();
  }
}

export async function stopThreads(): Promise<void> {
  await pool?.destroy();
  pool = null;
}
