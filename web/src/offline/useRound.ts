import type { RoundView } from '@karyotome/contract';
import { useQuery } from '@pinia/colada';
import { computed, ref } from 'vue';
import { ProblemError } from '../api/client.ts';
import { api } from '../api/resources.ts';
import { useSession } from '../stores/session.ts';
import { keepRound, keptRound, type WholeRound } from './device.ts';

/** The round as the server has it, or, without a connection, as this device last read it. */
export function useRound() {
  const session = useSession();
  /** It was read from the device: since then others may have logged, too. */
  const isOld = ref(false);
  const query = useQuery({
    key: ['round'],
    query: async (): Promise<WholeRound> => {
      const accountId = session.view?.account.id ?? '';
      try {
        const view = await wholeRound(await api.round(), await keptRound(accountId));
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

/** Racks that are read at once. */
const AT_ONCE = 4;

/** The racks of a round: those that have not changed since this device read them are not read again. */
async function wholeRound({ racks, ...round }: RoundView, kept: WholeRound | null): Promise<WholeRound> {
  const known = new Map((kept?.racks ?? []).map((rack) => [rack.stamp, rack]));
  const whole: WholeRound['racks'][number][] = [];
  for (let from = 0; from < racks.length; from += AT_ONCE)
    whole.push(
      ...(await Promise.all(
        racks
          .slice(from, from + AT_ONCE)
          .map(async ({ id, stamp }) => known.get(stamp) ?? { ...(await api.roundRack(id)), stamp }),
      )),
    );
  return { ...round, racks: whole };
}
