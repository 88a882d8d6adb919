import { isHealthKind, type RecordFact } from '@karyotome/contract';
import { DEFAULT_LOCALE, sexWords } from '@karyotome/words';
import type { Work } from '../../db/work.ts';
import { recordViews, summaries } from '../../domain/animals/animals.repository.ts';
import { findAnimal } from '../../domain/animals/animals.service.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { heatZones } from '../../domain/enclosures/heat.service.ts';
import { cautionsOf, labelOf } from '../../domain/genetics/inferred-of-animal.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { plansOf } from '../../domain/husbandry/feeding-plans.ts';
import { statesOf } from '../../domain/states/animal-states.ts';
import { keptAnimalsOf } from '../../domain/states/kept-animals.ts';
import { eventsOfAnimal } from '../../domain/sales/sales.queries.ts';
import { saleRulesOf } from '../../domain/sales/sale-rules.ts';
import { notFound, Refusal } from '../../refusal.ts';
import type { CareSheet } from './care-sheet-pdf.ts';
import type { Receipt } from './receipt-pdf.ts';

async function headOf(work: Work, locale: string = DEFAULT_LOCALE) {
  const { name, massUnit, temperatureUnit } = await collectionOf(work);
  return { collection: name, printedOn: work.today, reader: { locale, massUnit, temperatureUnit } };
}

/** What a receipt of a sale says. @param locale - of whoever prints it */
export async function receiptOf(work: Work, eventId: string, locale: string): Promise<Receipt> {
  const { collectionId } = work.actor;
  const row = await work.models.statusEvents.findOne({
    where: { collectionId, id: eventId },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This event');
  const { animalId, kind } = row.get();
  const event = (await eventsOfAnimal(work, { animalId })).find(({ id }) => id === eventId)!;
  if (kind !== 'sold' || event.voided)
    throw new Refusal('conflict', 'This is no sale that stands: there is nothing to give a receipt for.');
  const { number, name, sex, hatchedOn } = await findAnimal(work, animalId);
  const { currency } = (await saleRulesOf(work)).rules;
  const { details } = event;
  return {
    ...(await headOf(work, locale)),
    id: eventId,
    soldOn: event.on,
    buyer: event.person?.name ?? null,
    price: details.price ?? null,
    currency: details.currency ?? currency,
    paidOn: details.paidOn ?? null,
    handedOverOn: details.handedOverOn ?? null,
    how: details.how ?? null,
    animal: { number, name, hatchedOn, label: labelOf(await geneticsOf(work), animalId), sex: sexWords(sex) },
  };
}

/**
 * What a care sheet says.
 *
 * @param locale - of whoever prints it
 * @param withHealth - with its health records, where its keeper wants them told
 */
export async function careSheetOf(
  work: Work,
  animalId: string,
  { locale, withHealth }: { readonly locale: string; readonly withHealth: boolean },
): Promise<CareSheet> {
  const genetics = await geneticsOf(work);
  const [summary] = await summaries(work, genetics, 'and a.id = :animalId', { animalId });
  if (!summary) throw notFound('This animal');
  const state = (await statesOf(work, [animalId])).get(animalId)!;
  const { history, housing } = (await keptAnimalsOf(work, [animalId])).get(animalId)!;
  const eats = state.appetite;
  const shed = history.sheds.findLast(({ stage }) => stage === 'shed');
  const step = housing?.steps[housing.step];
  const rackId = summary.tub?.rackId;
  const zone =
    rackId === undefined ? undefined : (await heatZones(work)).find((one) => one.rackId === rackId);
  const weight = history.weights.at(-1);
  return {
    ...(await headOf(work, locale)),
    animal: {
      number: summary.number,
      name: summary.name,
      label: summary.label,
      sex: sexWords(summary.sex),
      hatchedOn: summary.hatchedOn,
    },
    weight: weight ? { on: weight.on, massG: weight.massG } : null,
    shed: shed ? { on: shed.on, complete: shed.complete ?? null } : null,
    meals: history.feedings.toReversed().map(({ on, species, size, state, taken }) => ({
      on,
      species: species ?? '',
      size: size ?? '',
      state: state ?? null,
      taken,
    })),
    counts: { taken: eats.takenEver, offered: eats.offeredEver, inARow: eats.inARow },
    next: state.meal,
    plan: (await plansOf(work)).find(({ id }) => id === state.planId)?.name ?? '',
    tub: step ? { kind: step.name, inside: step.inside } : null,
    heat: zone ? { warmC: zone.warmC, coolC: zone.coolC } : null,
    cautions: cautionsOf(genetics, animalId),
    health: withHealth ? await healthRecordsOf(work, animalId) : null,
  };
}

/** Standing records of its health, the newest first. */
async function healthRecordsOf(work: Work, animalId: string): Promise<CareSheet['health']> {
  return (await recordViews(work, [animalId])).flatMap(({ kind, on, body, voided }) =>
    voided === null && isHealthKind(kind) ? [{ on, fact: { kind, body } as RecordFact }] : [],
  );
}
