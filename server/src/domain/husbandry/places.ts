import type { TubPlace } from '@karyotome/contract';
import type { Herd, HerdAnimal } from './herd.ts';

const two = (n: number): string => String(n).padStart(2, '0');

/** In walking order: room, rack, level, tub; what has no place comes first. */
export function inWalkingOrder(herd: Herd, animals: readonly HerdAnimal[]): HerdAnimal[] {
  const key = ({ tubId, number }: HerdAnimal): string => {
    const tub = tubId === null ? undefined : herd.enclosures.tubs.get(tubId);
    return tub ? `1${tub.room}|${tub.rack}|${two(tub.level)}|${two(tub.slot)}|${number}` : `0${number}`;
  };
  const keys = new Map(animals.map((animal) => [animal.id, key(animal)]));
  return animals.toSorted((a, b) => (keys.get(a.id)! < keys.get(b.id)! ? -1 : 1));
}

export function placeOf(herd: Herd, tubId: string | null): TubPlace | null {
  const tub = tubId === null ? undefined : herd.enclosures.tubs.get(tubId);
  if (!tub) return null;
  const { room, rack, level, slot } = tub;
  return { tubId: tub.tubId, room, rack, level, slot };
}
