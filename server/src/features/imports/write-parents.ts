import { BeginAgain } from '../../db/begin-again.ts';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { ancestorsOf, restingOn } from '../../domain/animals/ancestry.ts';
import { publishedAnimals } from '../../domain/animals/animals.repository.ts';
import { Refusal } from '../../refusal.ts';
import type { ImportGround, ParentsItem } from './file-items.ts';
import { animalsByNumber, setParents, type ParentsChange, type Written } from './imports.queries.ts';

/** Sets parents of animals that are there. */
export async function writeParents(
  work: Work<Actor>,
  ground: ImportGround,
  items: readonly ParentsItem[],
): Promise<Written> {
  const idOf = new Map((await animalsByNumber(work)).map(({ number, id }) => [number, id]));
  const before = new Map(ground.known.map((animal) => [animal.number, animal]));
  const parents = items.map(({ number, dam, sire }) => {
    const animal = before.get(number)!;
    return {
      id: animal.id,
      was: [animal.damId, animal.sireId] as const,
      // A cell that is empty says nothing.
      becomes: [
        dam === '' ? animal.damId : (idOf.get(dam) ?? null),
        sire === '' ? animal.sireId : (idOf.get(sire) ?? null),
      ] as const,
    };
  });
  const changes = parents.filter(({ was, becomes }) => was[0] !== becomes[0] || was[1] !== becomes[1]);
  await refusePublished(work, changes);
  if ((await setParents(work, changes)) < changes.length) throw new BeginAgain();
  await refuseCircles(work, changes);
  await touchGenetics(work);
  return { rows: changes.length, made: { parents: changes } };
}

/** What is published rests on the parents of its ancestors: they stay as long as it is. */
export async function refusePublished(work: Work, changes: readonly ParentsChange[]): Promise<void> {
  const resting = await restingOn(
    work,
    await publishedAnimals(work),
    changes.map(({ id }) => id),
  );
  if (resting.length > 0)
    throw new Refusal(
      'conflict',
      `The published page of ${numbersOf(resting)} shows animals whose parents would change. Withdraw the page first.`,
    );
}

async function refuseCircles(work: Work, changes: readonly ParentsChange[]): Promise<void> {
  const ids = changes.map(({ id }) => id);
  const above = await ancestorsOf(work, ids);
  const circling = new Set(ids.filter((id) => above.get(id)!.has(id)));
  if (circling.size === 0) return;
  const animals = (await animalsByNumber(work)).filter(({ id }) => circling.has(id));
  throw new Refusal(
    'conflict',
    `By these parents an animal would descend from itself: ${numbersOf(animals)}.`,
  );
}

const numbersOf = (animals: readonly { readonly number: string }[]): string =>
  someOf(animals.map(({ number }) => number));

const MOST_NAMED = 5;
/** The first of some names, and whether there are more. */
export const someOf = (names: readonly string[]): string =>
  names.slice(0, MOST_NAMED).join(', ') + (names.length > MOST_NAMED ? ' and others' : '');
