import type { IsoDay } from '../calendar/days.ts';

export const EGG_VERDICTS = ['good', 'doubtful', 'slug'] as const;
export type EggVerdict = (typeof EGG_VERDICTS)[number];

export const EGG_SIGNS = ['veins', 'movement', 'mould', 'dent', 'collapse'] as const;
export type EggSign = (typeof EGG_SIGNS)[number];

export const EGG_EVENTS = ['check', 'removed', 'pip', 'cut', 'out', 'died'] as const;
export type EggEventKind = (typeof EGG_EVENTS)[number];

/** A dated event of one egg, or of all eggs of a clutch. */
export interface EggEvent {
  readonly id: string;
  readonly kind: EggEventKind;
  readonly on: IsoDay;
  /** Null: the whole clutch was looked at. */
  readonly eggId: string | null;
  /** What a check saw. */
  readonly signs: readonly EggSign[];
  /** Young that came out: 2 for twins. */
  readonly young: number;
}

export type EggStage = 'in-egg' | 'pipped' | 'out' | 'died' | 'removed';

/** What has become of an egg. */
export interface EggState {
  readonly stage: EggStage;
  readonly since: IsoDay | null;
  readonly wasCut: boolean;
  readonly young: number;
  /** What the last check of this very egg saw. */
  readonly signs: readonly EggSign[];
  readonly checkedOn: IsoDay | null;
  /** Signs that ask for a second look. */
  readonly worries: readonly EggSign[];
}

const STAGE_OF: Partial<Record<EggEventKind, EggStage>> = {
  removed: 'removed',
  pip: 'pipped',
  out: 'out',
  died: 'died',
};
/** Dents are usually harmless; mould and a collapse are looked at again. Common practice, no source. */
const WORRIES: readonly EggSign[] = ['mould', 'collapse'];

/**
 * Folds the events of a clutch into the state of one of its eggs.
 *
 * @example eggState('egg', []).stage // "in-egg"
 */
export function eggState(eggId: string, events: readonly EggEvent[]): EggState {
  const own = events
    .filter((event) => event.eggId === eggId)
    .toSorted((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : rank(a) - rank(b)));
  const check = own.findLast(({ kind }) => kind === 'check');
  const last = own.findLast(({ kind }) => STAGE_OF[kind] !== undefined);
  return {
    stage: last ? STAGE_OF[last.kind]! : 'in-egg',
    since: last?.on ?? null,
    wasCut: own.some(({ kind }) => kind === 'cut'),
    young: last?.kind === 'out' ? last.young : 0,
    signs: check?.signs ?? [],
    checkedOn: check?.on ?? null,
    worries: (check?.signs ?? []).filter((sign) => WORRIES.includes(sign)),
  };
}

/** On one day an egg is looked at, pips, and is left, in this order. */
const rank = ({ kind }: EggEvent): number => ['check', 'cut', 'pip', 'out', 'died', 'removed'].indexOf(kind);
