/** Patterns of numbering hatchlings. Common practice, no source. */
export const NUMBER_PATTERNS = ['season-clutch-hatchling', 'running', 'free'] as const;
export type NumberPattern = (typeof NUMBER_PATTERNS)[number];

export interface NumberingContext {
  readonly pattern: NumberPattern;
  /** The season's year. */
  readonly season: number;
  /** The clutch's place in its season, 1 for the first. */
  readonly clutch: number;
  /** Every number ever given out in the collection, also to animals that are gone. */
  readonly used: ReadonlySet<string>;
}

const twoDigits = (n: number): string => String(n).padStart(2, '0');

/**
 * How a clutch is called. Common practice, no source.
 *
 * @param season - the season's year
 * @param clutch - its place in the season, 1 for the first
 * @example clutchName(2026, 4) // "2604"
 */
export function clutchName(season: number, clutch: number): string {
  return twoDigits(season % 100) + twoDigits(clutch);
}

/** `2604-02`: season 2026, fourth clutch, second hatchling. */
function seasonNumber(season: number, clutch: number, hatchling: number): string {
  return `${clutchName(season, clutch)}-${twoDigits(hatchling)}`;
}

/**
 * The next numbers of a pattern, none of them ever used before.
 *
 * @param count - how many, 1 or more
 * @returns an empty list for `free`, where a person chooses
 * @example nextNumbers({ pattern: 'season-clutch-hatchling', season: 2026, clutch: 4, used: new Set(['2604-01']) }, 2) // ["2604-02","2604-03"]
 */
export function nextNumbers(context: NumberingContext, count: number): string[] {
  if (context.pattern === 'free') return [];
  const running = context.pattern === 'running';
  const last = running ? Math.max(0, ...[...context.used].filter((n) => /^\d+$/.test(n)).map(Number)) : 0;
  const numbers: string[] = [];
  for (let n = last + 1; numbers.length < count; n++) {
    const number = running ? String(n).padStart(4, '0') : seasonNumber(context.season, context.clutch, n);
    if (!context.used.has(number)) numbers.push(number);
  }
  return numbers;
}

/**
 * What a number of the pattern `season-clutch-hatchling` says; null where it follows another.
 *
 * @example parseSeasonNumber('2604-02') // {"season":2026,"clutch":4,"hatchling":2}
 */
export function parseSeasonNumber(
  number: string,
): { season: number; clutch: number; hatchling: number } | null {
  const match = /^(\d{2})(\d{2,})-(\d{2,})$/.exec(number);
  if (!match) return null;
  return { season: 2000 + Number(match[1]), clutch: Number(match[2]), hatchling: Number(match[3]) };
}

/**
 * The number that goes on from those given before: the highest of the first one's beginning, and one more, as wide as they are.
 *
 * @param numbers - given before; the first one leads
 * @returns null where the first one does not end in digits
 * @example followingNumber(['F-09', 'F-11', 'M-40']) // "F-12"
 */
export function followingNumber(numbers: readonly string[]): string | null {
  const parts = (number: string): { start: string; digits: string } | null => {
    const match = /^(.*?)(\d+)$/.exec(number);
    return match && { start: match[1]!, digits: match[2]! };
  };
  const lead = parts(numbers[0] ?? '');
  if (!lead) return null;
  const alike = numbers.map(parts).filter((one) => one?.start === lead.start);
  const highest = Math.max(...alike.map((one) => Number(one!.digits)));
  const width = Math.max(...alike.map((one) => one!.digits.length));
  return lead.start + String(highest + 1).padStart(width, '0');
}
