/** The schools of numbering hatchlings. Common practice, no source. */
export type NumberPattern = 'season-clutch-hatchling' | 'running' | 'free';

export const NUMBER_PATTERNS: readonly {
  readonly id: NumberPattern;
  readonly title: string;
  readonly example: string;
}[] = [
  { id: 'season-clutch-hatchling', title: 'Season, clutch, hatchling', example: '2604-02' },
  { id: 'running', title: 'One running number', example: '0143' },
  { id: 'free', title: 'Your own text', example: 'Juniper 3' },
];

export interface NumberingContext {
  readonly pattern: NumberPattern;
  /** The season's year. */
  readonly season: number;
  /** The clutch's place in its season, 1 for the first. */
  readonly clutch: number;
  /** Every number ever given out in the collection, also to animals that are gone. */
  readonly used: ReadonlySet<string>;
}

/** `2604-02`: season 2026, fourth clutch, second hatchling. */
function seasonNumber(season: number, clutch: number, hatchling: number): string {
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${two(season % 100)}${two(clutch)}-${two(hatchling)}`;
}

/**
 * The next numbers of a pattern, none of them ever used before.
 *
 * @param count - how many, 1 or more
 * @returns an empty list for `free`, where a person chooses
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

/** What a number says, for people who meet it for the first time; null where it follows no pattern. */
export function explainNumber(number: string): string | null {
  const match = /^(\d{2})(\d{2,})-(\d{2,})$/.exec(number);
  if (!match) return null;
  return `Season 20${match[1]}, clutch ${Number(match[2])}, hatchling ${Number(match[3])}`;
}
