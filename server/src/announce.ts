import type { Config } from './config.ts';

/** Tells whoever started the server that it serves, and how the first owner is made where there is none yet. */
export function announce({ host }: Pick<Config, 'host'>, port: number, code: string | null): void {
  // The launcher waits for this line.
  console.log(`listening ${port}`);
  if (code !== null)
    console.log(`Nobody has an account yet. Make the first owner at http://${host}:${port}/start#${code}`);
}
