import type { RackView } from '@karyotome/contract';
import { computed, ref, type Ref } from 'vue';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

type Tub = RackView['tubs'][number];
export type Housed = Tub['animals'][number];

/** Animals taken in the hand, one or many, and laid into tubs: by drag, by touch or by keys; each act undone at once. */
export function useMoving(racks: Ref<RackView[] | undefined>) {
  const notices = useNotices();
  const moving = useWrite(api.moveMany);
  const undoing = useWrite(api.voidRecords);
  const held = ref<string[]>([]);
  const placeOf = computed(() => {
    const places = new Map<string, { animal: Housed; tub: Tub; rack: RackView }>();
    for (const rack of racks.value ?? [])
      for (const tub of rack.tubs)
        for (const animal of tub.animals) places.set(animal.id, { animal, tub, rack });
    return places;
  });
  const inHand = computed(() => held.value.flatMap((id) => placeOf.value.get(id)?.animal ?? []));

  function take(id: string): void {
    held.value = held.value.includes(id) ? held.value.filter((other) => other !== id) : [...held.value, id];
  }
  function letGo(): void {
    held.value = [];
  }

  /**
   * Lays animals into a tub. One onto another's tub changes places with it; several go into that tub and the free ones after
   * it in the rack.
   */
  async function put(ids: readonly string[], tub: Tub, rack: RackView): Promise<void> {
    const moves = planMoves(ids, tub, rack);
    if (moves === null) {
      notices.warn(`${rack.name} has not places enough for ${ids.length} from there on`);
      return;
    }
    if (moves.length === 0) return letGo();
    const reason = moves.length === 1 ? 'Moved in the room' : `Moved with ${moves.length - 1} others`;
    const sent = await moving.run({ moves, reason, on: farmToday() });
    if (!sent) return notices.warn(moving.message.value ?? 'It could not be moved');
    letGo();
    const first = placeOf.value.get(moves[0]!.animalId)?.animal.number ?? '';
    notices.say(
      moves.length === 1
        ? `${first} moved to ${rack.name} ${tub.level}-${tub.slot}`
        : `${moves.length} moved`,
      async () => {
        if (!(await undoing.run(sent.value.ids)))
          notices.warn(undoing.message.value ?? 'It could not be taken back');
      },
    );
  }

  /** Out of their tubs, into none. */
  async function takeOut(ids: readonly string[]): Promise<void> {
    const moves = ids.map((animalId) => ({ animalId, toTubId: null }));
    const sent = await moving.run({ moves, reason: 'Taken out of its tub', on: farmToday() });
    if (!sent) return notices.warn(moving.message.value ?? 'It could not be moved');
    letGo();
    notices.say(
      ids.length === 1 ? 'Taken out of its tub' : `${ids.length} taken out of their tubs`,
      async () => {
        await undoing.run(sent.value.ids);
      },
    );
  }

  function planMoves(
    ids: readonly string[],
    tub: Tub,
    rack: RackView,
  ): { animalId: string; toTubId: string }[] | null {
    if (ids.length === 1) {
      const id = ids[0]!;
      const from = placeOf.value.get(id)?.tub;
      if (from?.id === tub.id) return [];
      const moves = [{ animalId: id, toTubId: tub.id }];
      // Changing places leaves nobody two in a tub.
      const other = tub.animals[0];
      return other && from ? [...moves, { animalId: other.id, toTubId: from.id }] : moves;
    }
    const at = rack.tubs.findIndex(({ id }) => id === tub.id);
    const free = rack.tubs
      .slice(at)
      .filter(({ animals }) => animals.every(({ id }) => ids.includes(id)))
      .slice(0, ids.length);
    if (free.length < ids.length) return null;
    return ids
      .map((animalId, i) => ({ animalId, toTubId: free[i]!.id }))
      .filter(({ animalId, toTubId }) => placeOf.value.get(animalId)?.tub.id !== toTubId);
  }

  return { held, inHand, take, letGo, put, takeOut, busy: moving.busy };
}
