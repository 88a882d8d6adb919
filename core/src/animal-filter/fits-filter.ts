import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { isRecessive, WILD } from '../loci/locus.ts';
import { parseGenes } from '../notation/parse.ts';
import type { Parent } from '../odds/parent.ts';
import { toTarget, type Target } from '../odds/target.ts';
import { wishChance } from '../sales/wish.ts';
import type { AnimalFilter, Criteria, Criterion, FilteredAnimal } from './criteria.ts';

/** Likelier than not. */
const LIKELY = 0.5;
/** A fraction as the trade writes it is rounded: 66% is two thirds, 33% one third. */
const ROUNDED = 0.01;
/** Fainter than this, nobody calls a gene possible. */
const FAINT = 0.005;

type Holds<Code extends keyof Criteria> = (
  facts: Criteria[Code],
  animal: FilteredAnimal,
  today: IsoDay,
) => boolean;

const since = (day: IsoDay | null, today: IsoDay): number =>
  day === null ? Infinity : daysBetween(day, today);
const isWithin = (value: number | null, from: number | null, to: number | null): boolean =>
  value !== null && value >= (from ?? -Infinity) && value <= (to ?? Infinity);

const HOLDS: { [Code in Exclude<keyof Criteria, 'genes'>]: Holds<Code> } = {
  sex: ({ sex }, animal) => animal.sex === sex,
  mass: ({ fromG, toG }, { massG }) => isWithin(massG, fromG, toG),
  age: ({ fromDays, toDays }, { hatchedOn }, today) =>
    hatchedOn !== null && isWithin(daysBetween(hatchedOn, today), fromDays, toDays),
  'hatched-in': ({ year }, { hatchedOn }) => hatchedOn?.startsWith(`${year}-`) === true,
  status: ({ status }, animal) => animal.status === status,
  bred: ({ season }, { seasons }) => seasons.includes(season),
  place: ({ name }, { room, rack }) => room === name || rack === name,
  'without-tub': (_, { rack }) => rack === null,
  'of-clutch': ({ name }, { clutch }) => clutch === name,
  'not-weighed': ({ days }, { weighedOn }, today) =>
    days === 0 ? weighedOn === null : since(weighedOn, today) >= days,
  'not-eaten': ({ days }, { ateOn }, today) => since(ateOn, today) >= days,
  refused: ({ meals }, { refusedInARow }) => refusedInARow >= meals,
  'in-shed': (_, { isInShed }) => isInShed,
  gravid: (_, { isGravid }) => isGravid,
  'in-quarantine': (_, { isInQuarantine }) => isInQuarantine,
  'under-treatment': (_, { isTreated }) => isTreated,
  'shows-signs': (_, { showsSigns }) => showsSigns,
  published: (_, { isPublished }) => isPublished,
};

/**
 * A filter made ready to be asked of many animals: its genes are read once.
 *
 * @param genesOf - what an animal may be, locus by locus; asked only where a filter names genes
 * @returns whether an animal is as asked
 * @example animalTest(readFilter('female', { today: '2026-11-28', seasonRules: SEASON_RULES, places: [], massUnit: 'g' }), '2026-11-28')({ sex: 'female' }, () => toParent(parseGenes('clown'), 'female')) // true
 */
export function animalTest(
  { clauses }: AnimalFilter,
  today: IsoDay,
  catalogue: Catalogue = CATALOGUE,
): (animal: FilteredAnimal, genesOf: () => Parent) => boolean {
  const tests = clauses.map((clause) => clause.map((criterion) => toTest(criterion, today, catalogue)));
  return (animal, genesOf) => tests.every((clause) => clause.some((test) => test(animal, genesOf)));
}

function toTest(
  { isNot, ...criterion }: Criterion,
  today: IsoDay,
  catalogue: Catalogue,
): (animal: FilteredAnimal, genesOf: () => Parent) => boolean {
  if (criterion.code === 'genes') {
    const { text, least } = criterion.facts;
    const must = toTarget(parseGenes(text, catalogue), catalogue);
    const wish = { must, mustNot: doublesOf(must), sex: null };
    const enough = least === null ? LIKELY : Math.max(least - ROUNDED, FAINT);
    return (_, genesOf) => wishChance(wish, genesOf(), 1) >= enough !== isNot;
  }
  const holds = HOLDS[criterion.code] as Holds<keyof Criteria>;
  return (animal) => holds(criterion.facts, animal, today) !== isNot;
}

/** Who is asked to be het for a recessive gene must not show it. */
function doublesOf(must: Target): Target {
  return must.flatMap(({ locus, wanted }) => {
    const carried = wanted.flatMap((genotype) => {
      const [one, other] = genotype;
      return one === WILD && other !== WILD && isRecessive(locus, other) ? [[other, other] as const] : [];
    });
    return carried.length > 0 ? [{ locus, wanted: carried }] : [];
  });
}
