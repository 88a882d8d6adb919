import { within } from './within.ts';

/** One part of what ends with the process. */
export interface Part {
  /** For the log. */
  readonly name: string;
  readonly end: () => Promise<unknown>;
}

/**
 * Ends parts one after another. A fault in one is told, and the others end none the less.
 *
 * @param limitMs - all of them together have so long; one that takes longer is told, and those after it are not ended
 * @returns whether all of them ended without a fault
 */
export async function endInOrder(
  parts: readonly Part[],
  limitMs: number,
  onFault: (error: unknown) => void,
): Promise<boolean> {
  let current = '';
  const all = async (): Promise<boolean> => {
    let isWhole = true;
    for (const { name, end } of parts) {
      current = name;
      await end().catch((cause: unknown) => {
        isWhole = false;
        onFault(new Error(`Ending failed: ${name}`, { cause }));
      });
    }
    return isWhole;
  };
  const isWhole = await within(limitMs, all());
  if (isWhole === null) onFault(new Error(`The process ends without waiting any longer for: ${current}`));
  return isWhole ?? false;
}
