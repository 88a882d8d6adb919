import { computed, type Ref } from 'vue';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useEntering } from '../rounds/useEntering.ts';
import { useLogged } from '../rounds/useLogged.ts';
import type { Target } from './candidates.ts';
import { offeredActs, type OfferedAct } from './offered-acts.ts';

/** Acts that are typed, offered to those who may record; each is taken back by one touch. */
export function useTypedActs(typed: Ref<string>, targets: Ref<readonly Target[]>) {
  const session = useSession();
  const notices = useNotices();
  const entering = useEntering();
  const { takeBack } = useLogged();
  const acts = computed(() => (session.mayRecord ? offeredActs(typed.value, targets.value) : []));

  async function enter({ title, about, entries }: OfferedAct): Promise<void> {
    const tried = await Promise.all(
      entries.map(async ({ target: { animal }, entry }) => ({
        animal,
        logged: await entering.enter(animal, entry),
      })),
    );
    const kept = tried.flatMap(({ animal, logged }) => (logged ? [{ animal, logged }] : []));
    if (kept.length === 0) return;
    notices.say(entries.length > 1 ? `${title}, ${about}` : title, async () => {
      for (const { animal, logged } of kept) await takeBack(animal, logged);
    });
  }
  return { acts, enter };
}
