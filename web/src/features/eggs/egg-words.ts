import type { EggEventView, EggInput, EggView } from '@karyotome/contract';
import type { EggEventKind, EggSign, EggStage, EggVerdict } from '@karyotome/core';
import { massWords } from '../../format/format.ts';

/* What the egg page says, in words. */

export const VERDICT_WORDS: Readonly<Record<EggVerdict, string>> = {
  good: 'good',
  doubtful: 'doubtful',
  slug: 'slug',
};
export const SIGN_WORDS: Readonly<Record<EggSign, string>> = {
  veins: 'Veins',
  movement: 'Movement',
  mould: 'Mould',
  dent: 'Dent',
  collapse: 'Collapsed',
};
export const STAGE_WORDS: Readonly<Record<EggStage, string>> = {
  'in-egg': '',
  pipped: 'pipped',
  out: 'out',
  died: 'died',
  removed: 'removed',
};
export const EVENT_WORDS: Readonly<Record<EggEventKind, string>> = {
  check: 'looked at',
  removed: 'removed',
  pip: 'pipped',
  cut: 'cut',
  out: 'out of the egg',
  died: 'died in the egg',
};

/** An egg while it lies on the screen: as last saved, or as just changed. */
export interface BoxEgg extends EggInput {
  readonly state: EggView['state'] | null;
}

/** "Egg 3: good, 82 g, marked, stuck to others, pipped": everything the drawing shows, for those who cannot see it. */
export function eggWords(egg: BoxEgg, position: number): string {
  const { state } = egg;
  return [
    VERDICT_WORDS[egg.verdict],
    egg.massG === null ? 'not weighed' : massWords(egg.massG),
    ...(egg.marked ? ['marked'] : []),
    ...(egg.stuck === null ? [] : ['stuck to others']),
    ...(state && state.stage !== 'in-egg' ? [STAGE_WORDS[state.stage]] : []),
    ...(state?.young === 2 ? ['twins'] : []),
    ...(state?.wasCut ? ['cut'] : []),
    ...(state?.worries ?? []).map((sign) => SIGN_WORDS[sign].toLowerCase()),
  ]
    .join(', ')
    .replace(/^/, `Egg ${position}: `);
}

/** "eggs 2 and 5" */
export function eggsWords(positions: readonly number[]): string {
  const sorted = positions.toSorted((a, b) => a - b);
  if (sorted.length === 1) return `egg ${sorted[0]}`;
  return `eggs ${sorted.slice(0, -1).join(', ')} and ${sorted.at(-1)}`;
}

/** One line of the log: "Egg 5: looked at, mould". Events recorded in one act on one day are one line. */
export interface LogLine {
  readonly ids: readonly string[];
  readonly on: string;
  readonly text: string;
  readonly author: string;
}
export function logLines(events: readonly EggEventView[], positionOf: (eggId: string) => number): LogLine[] {
  const groups = new Map<string, EggEventView[]>();
  for (const event of events) {
    const key = [event.on, event.kind, event.young, event.signs.join(), event.note, event.author].join('|');
    groups.set(key, [...(groups.get(key) ?? []), event]);
  }
  return [...groups.values()]
    .map((group) => {
      const [first] = group;
      const positions = group.flatMap(({ eggId }) => (eggId === null ? [] : [positionOf(eggId)]));
      const who = positions.length === 0 ? 'All eggs' : capital(eggsWords(positions));
      const signs = first!.signs.map((sign) => SIGN_WORDS[sign].toLowerCase());
      const what = [
        EVENT_WORDS[first!.kind],
        ...(first!.young === 2 ? ['twins'] : []),
        ...(first!.kind === 'check' && signs.length === 0 ? ['nothing to note'] : signs),
      ].join(', ');
      return {
        ids: group.map(({ id }) => id),
        on: first!.on,
        text: `${who}: ${what}${first!.note ? `. ${first!.note}` : ''}`,
        author: first!.author,
      };
    })
    .toReversed()
    .toSorted((a, b) => (a.on < b.on ? 1 : a.on > b.on ? -1 : 0));
}
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The smallest number that no group of stuck eggs has yet. */
export function freeGroup(eggs: readonly Pick<EggInput, 'stuck'>[]): number {
  const used = new Set(eggs.map(({ stuck }) => stuck));
  let group = 1;
  while (used.has(group)) group++;
  return group;
}

/** Takes eggs into one stuck group, or out of theirs; a group of one is none. */
export function stickTogether<T extends Pick<EggInput, 'stuck'>>(
  eggs: readonly T[],
  chosen: ReadonlySet<number>,
  together: boolean,
): T[] {
  const group = together ? freeGroup(eggs) : null;
  const next = eggs.map((egg, i) => (chosen.has(i) ? { ...egg, stuck: group } : egg));
  return next.map((egg) =>
    egg.stuck !== null && next.filter(({ stuck }) => stuck === egg.stuck).length < 2
      ? { ...egg, stuck: null }
      : egg,
  );
}
