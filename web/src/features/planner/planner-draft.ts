import { useDraft } from '../../stores/useDraft.ts';
import type { PlannedParent } from '../../workers/planner-questions.ts';

/** A parent as it is being chosen: one of the collection, or genes typed in. */
export interface ParentChoice {
  kind: 'owned' | 'typed';
  animalId: string | null;
  genes: string;
}
const noParent = (): ParentChoice => ({ kind: 'owned', animalId: null, genes: '' });

/** What is asked of the planner: kept, so that one can look up something elsewhere and come back. */
export function usePlannerDraft() {
  return useDraft('planner', () => ({
    tab: 'pair' as 'pair' | 'mates' | 'routes' | 'season',
    target: '',
    dam: noParent(),
    sire: noParent(),
    isBuying: false,
    bought: { sex: 'male' as 'female' | 'male', genes: '' },
    holdBack: 2,
    targets: [{ genes: '', worth: 1 }],
    /** Percent; null for the bound of the rules. */
    bound: null as number | null,
    /** Female -> male, or "none". */
    fixed: {} as Record<string, string>,
  }));
}
export type PlannerDraft = ReturnType<typeof usePlannerDraft>['draft'];

/** The parent to ask with; null while nothing is chosen. */
export function chosenParent({ kind, animalId, genes }: ParentChoice): PlannedParent | null {
  if (kind === 'owned') return animalId === null ? null : { kind, animalId };
  return genes.trim() === '' ? null : { kind, genes };
}
