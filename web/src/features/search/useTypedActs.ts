import { computed, type Ref } from 'vue';
import { useSession } from '../../stores/session.ts';
import { useEntering } from '../rounds/useEntering.ts';
import type { Target } from './candidates.ts';
import { offeredActs, type OfferedAct } from './offered-acts.ts';

/** Acts that are typed, offered to those who may record; each is taken back by one touch. */
export function useTypedActs(typed: Ref<string>, targets: Ref<readonly Target[]>) {
  const session = useSession();
  const entering = useEntering();
  const acts = computed(() => (session.mayRecord ? offeredActs(typed.value, targets.value) : []));

  const enter = ({ title, about, entries }: OfferedAct): Promise<void> =>
    entering.enterAll(entries, entries.length > 1 ? `${title}, ${about}` : title);
  return { acts, enter };
}
