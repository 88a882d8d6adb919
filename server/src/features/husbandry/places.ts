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

/** "Rack A 2-3", as labels and lists say it. */
export function placeWords(herd: Herd, tubId: string | null): string {
  const tub = tubId === null ? undefined : herd.enclosures.tubs.get(tubId);
  return tub ? `${tub.rack} ${tub.level}-${tub.slot}` : '';
}
