import type { AnimalWaitView } from '@karyotome/contract';
import { oddsWords } from '../../format/format.ts';

/** "fits 3 who wait, first Ada, 94%" */
export function waitWords(wait: AnimalWaitView | undefined): string | null {
  if (!wait?.first) return null;
  const who = wait.count === 1 ? '1 who waits' : `${wait.count} who wait`;
  return `fits ${who}, first ${wait.first.name}, ${oddsWords(wait.first.p)}`;
}
