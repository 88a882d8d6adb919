import type { RoundView } from '@karyotome/contract';
import { useQuery } from '@pinia/colada';
import { computed, ref } from 'vue';
import { ProblemError } from '../api/client.ts';
import { api } from '../api/resources.ts';
import { useSession } from '../stores/session.ts';
import { keepRound, keptRound } from './device.ts';

/** The round as the server has it, or, without a connection, as this device last read it. */
export function useRound() {
  const session = useSession();
  /** It was read from the device: since then others may have logged, too. */
  const isOld = ref(false);
  const query = useQuery({
    key: ['round'],
    query: async (): Promise<RoundView> => {
      const accountId = session.view?.account.id ?? '';
      try {
        const view = await api.round();
        isOld.value = false;
        await keepRound(accountId, view);
        return view;
      } catch (error) {
        if (!(error instanceof ProblemError) || (error.problem.status !== 0 && error.problem.status < 500))
          throw error;
        const kept = await keptRound(accountId);
        if (!kept) throw error;
        isOld.value = true;
        return kept;
      }
    },
  });
  return { ...query, isOld, at: computed(() => query.data.value?.at ?? null) };
}
