import { IN_QUARANTINE, type RoundAnimal, type RoundRack } from '@karyotome/contract';
import { computed, ref, watch, type Ref } from 'vue';
import type { WholeRound } from '../../offline/device.ts';
import { useRoute, useRouter } from 'vue-router';

/** An animal in its place on the way through a rack. */
export interface Stop {
  readonly rack: RoundRack;
  readonly place: string;
  readonly animal: RoundAnimal;
}

/** Every stop of a rack, in walking order. */
export function stopsOf(rack: RoundRack): Stop[] {
  return rack.tubs.flatMap(({ tubId, rack: standsIn, level, slot, animals }) => {
    const tub = `${standsIn ? `${standsIn} ` : ''}${level}-${slot}`;
    return animals.map((animal) => ({ rack, place: tubId === null ? '' : tub, animal }));
  });
}

/** What a part of a round is headed by. */
export const rackTitle = ({ id, name }: Pick<RoundRack, 'id' | 'name'>): string =>
  name ?? (id === IN_QUARANTINE ? 'Quarantine' : 'Without a tub');

/** Where a stop is, in one line: "Grow 1 2-3", "in quarantine, Grow 1 2-3", "without a tub". */
export const stopPlace = ({ rack, place }: Pick<Stop, 'rack' | 'place'>): string => {
  if (rack.name !== null) return `${rack.name} ${place}`;
  return [rack.id === IN_QUARANTINE ? 'in quarantine' : '', place || 'without a tub']
    .filter(Boolean)
    .join(', ');
};

/** Where the hand is: which rack, which stop, kept in the address so that a reload comes back to it. */
export function useRoundPlace(view: Ref<WholeRound | undefined>) {
  const route = useRoute();
  const router = useRouter();
  const rack = computed(() => view.value?.racks.find(({ id }) => id === route.query['rack']) ?? null);
  const stops = computed(() => (rack.value ? stopsOf(rack.value) : []));
  /** The address follows; a hand does not wait for it. */
  const at = ref(route.query['at']);
  watch(
    () => route.query['at'],
    (id) => (at.value = id),
  );
  const index = computed(() =>
    Math.max(
      0,
      stops.value.findIndex(({ animal }) => animal.id === at.value),
    ),
  );
  const stop = computed(() => stops.value[index.value] ?? null);
  const next = computed(() => stops.value[index.value + 1] ?? null);

  function enter(rackId: string, animalId?: string): void {
    void router.push({ query: { rack: rackId, ...(animalId ? { at: animalId } : {}) } });
  }
  /** Goes so many stops on; past the last one, back to the list of racks. */
  function step(by: number): void {
    const to = stops.value[index.value + by];
    if (to) {
      at.value = to.animal.id;
      void router.replace({ query: { rack: to.rack.id, at: to.animal.id } });
    } else if (by > 0) leave();
  }
  function leave(): void {
    void router.push({ query: {} });
  }
  /** Goes to an animal wherever it lives. @returns whether it is in the round */
  function goTo(animalId: string): boolean {
    const home = view.value?.racks.find((one) => stopsOf(one).some(({ animal }) => animal.id === animalId));
    if (home) enter(home.id, animalId);
    return home !== undefined;
  }
  return { rack, stops, index, stop, next, enter, step, leave, goTo };
}
