import type { ClutchView, EggInput } from '@karyotome/contract';
import type { EggEventKind, EggSign } from '@karyotome/core';
import { ref, type Ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { capital, EVENT_WORDS, eggsWords } from './egg-words.ts';

/** Notes what is seen of the chosen eggs (of the whole clutch, where none is), said below with the way back. */
export function useEggEvents(clutch: () => ClutchView, eggs: () => readonly EggInput[]) {
  const notices = useNotices();
  const chosen: Ref<ReadonlySet<number>> = ref(new Set());
  const noting = useWrite(api.addEggEvents);
  const voiding = useWrite((ids: readonly string[]) =>
    api.voidEggEvents({ ids: [...ids], reason: 'Taken back' }),
  );

  async function note(
    kind: EggEventKind,
    on: string,
    details: { signs?: EggSign[]; young?: number },
  ): Promise<void> {
    const held = chosen.value;
    const ids = [...held].flatMap((index) => eggs()[index]?.id ?? []);
    if (ids.length < held.size) return notices.warn('This egg is not saved yet: a moment');
    // At once: the next egg may be touched before the answer is here.
    chosen.value = new Set();
    const eggIds = ids.length > 0 ? ids : null;
    const sent = await noting.run(clutch().id, { kind, on, eggIds, ...details });
    if (!sent) {
      if (chosen.value.size === 0) chosen.value = held;
      const [problem] = noting.problems.value;
      const said = problem ? capital(`the egg ${problem.message}`) : noting.message.value;
      return notices.warn(said ?? 'It could not be recorded');
    }
    const who = eggIds ? eggsWords([...held].map((index) => index + 1)) : 'all eggs';
    notices.say(`${capital(who)}: ${EVENT_WORDS[kind]}`, () => takeBack(sent.value.ids));
  }

  async function takeBack(ids: readonly string[]): Promise<void> {
    if (!(await voiding.run(ids))) notices.warn(voiding.message.value ?? 'It could not be taken back');
  }

  return { chosen, note, takeBack, busy: noting.busy };
}
