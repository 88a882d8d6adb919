import { CATALOGUE, shownBy } from '@karyotome/core';
import { addOpinion } from '../features/bench/opinions.service.ts';
import { insertRecord } from '../domain/records/insert-record.ts';
import { select, type Actor, type Work } from '../db/work.ts';
import { addEntry } from '../domain/catalogue/catalogue.service.ts';
import { FIRST_LOOK_SLIPS, OWN_MARKERS } from './bench-plan.ts';
import { Chance } from './chance.ts';
import { FARM, KEEPER } from './plan.ts';

interface Identified {
  readonly animalId: string;
  readonly genes: string;
  readonly hatchedOn: string;
}

/**
 * First looks on the day of hatching, before the colours had opened up: mostly right, at times not. They let the demo show
 * how a keeper's calls proved.
 */
export async function recordFirstIdentifications(work: Work<Actor>): Promise<void> {
  const chance = new Chance(20_260_406);
  const rows = await select<Identified>(
    work,
    `select a.id as "animalId", r.body ->> 'genes' as genes, a.hatched_on as "hatchedOn"
       from animals a join records r on r.collection_id = a.collection_id and r.animal_id = a.id
      where a.collection_id = :collectionId and a.clutch_id is not null and r.kind = 'identification'
        and r.body ->> 'sure' = 'certain' and r.voided_at is null order by a.number`,
  );
  for (const { animalId, genes, hatchedOn } of rows) {
    const { shown, sure } = firstLook(genes, chance);
    await insertRecord(work, animalId, {
      kind: 'identification',
      on: hatchedOn,
      body: { genes: shown, sure, by: chance.isTrue(0.75) ? FARM.owner : KEEPER.name },
    });
  }
}

/** What was said on the first day: with one gene missed, now and then. */
function firstLook(
  genes: string,
  chance: Chance,
): { shown: string; sure: 'certain' | 'probable' | 'possible' } {
  const named = Object.entries(shownBy(genes));
  const roll = chance.next();
  const sure = roll < 0.35 ? 'certain' : roll < 0.8 ? 'probable' : 'possible';
  const slips =
    sure === 'certain'
      ? FIRST_LOOK_SLIPS / 4
      : sure === 'probable'
        ? FIRST_LOOK_SLIPS
        : 2.4 * FIRST_LOOK_SLIPS;
  const isSlip = chance.isTrue(slips);
  const missed = chance.whole(0, Math.max(0, named.length - 1));
  const words = named
    .filter((_, i) => !isSlip || i !== missed)
    .map(([locus, phenotype]) => {
      const [first, second] = phenotype.split('/');
      const isRecessive = CATALOGUE.alleleById(first!)!.allele.expression === 'recessive';
      return second === undefined || isRecessive || locus === 'albino-complex' ? first! : `super ${first}`;
    });
  return { shown: words.length > 0 ? words.join(' ') : 'Normal', sure };
}

/** What the farm looks for where the catalogue notes nothing. */
export async function addOwnMarkers(work: Work<Actor>): Promise<void> {
  for (const marker of OWN_MARKERS) await addEntry(work, { kind: 'marker', ...marker });
}

/** A second opinion on one that waits. */
export async function playOpinions(work: Work<Actor>, animalId: string): Promise<void> {
  await addOpinion(work, animalId, {
    by: KEEPER.name,
    genes: 'Pastel Enchi',
    sure: 'possible',
    note: 'Head top looks washed out to me. I would wait for the second shed.',
  });
}
