import { isGone, type BoardFemale, type PackedLoci, type PlannerView } from '@karyotome/contract';
import {
  clutchSize,
  daysBetween,
  hatchShare,
  seasonOf,
  WILD,
  type NotReady,
  type Readiness,
  type SeasonRules,
} from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { listAnimals } from '../../domain/animals/animals.service.ts';
import { entryInputs } from '../../domain/catalogue/catalogue.service.ts';
import { geneticsOf, type Genetics } from '../../domain/genetics/genetics.service.ts';
import { parentOf } from '../../domain/genetics/inferred-of-animal.ts';
import { doneClutches } from '../../domain/incubation/hatch-rates.queries.ts';
import { boardFemales, boardInOrder, boardMales } from '../../domain/season/board.service.ts';
import { rulesOf } from '../../domain/season/season-rules.ts';

const YEAR_DAYS = 365.25;
/** Kinships are sent pair by pair: of more animals the rest is left out, and that is said. */
const MOST_ANIMALS = 1200;
/** A youngster that is not weighed into readiness grows into it in about this many years. */
const GROWS_INTO_IT = 0.5;

/** Everything the planner in the browser computes from: who there is, what each may be, who is related to whom. */
export async function viewPlanner(work: Work): Promise<PlannerView> {
  const genetics = await geneticsOf(work);
  const { rules } = await rulesOf(work);
  const season = seasonOf(work.today, rules);
  const females = await boardFemales(work, await boardInOrder(work, 'female'));
  const males = await boardMales(work, await boardInOrder(work, 'male'));
  const board = new Map([...females, ...males].map((one) => [one.id, one]));
  const loads = new Map(males.map((male) => [male.id, rules.maleLoad - male.females]));
  const clutches = await doneClutches(work);
  const good = clutches.reduce((sum, { eggs, slugs }) => sum + eggs - slugs, 0);
  const hatched = clutches.reduce((sum, one) => sum + Math.min(one.hatched, one.eggs - one.slugs), 0);
  const candidates = (await listAnimals(work)).filter(
    (animal) => animal.sex !== 'unknown' && !isGone(animal) && animal.status !== 'reserved',
  );
  // Those on the board first: a matrix over thousands of hatchlings would be sent for nothing.
  const animals = candidates
    .toSorted((a, b) => Number(board.has(b.id)) - Number(board.has(a.id)))
    .slice(0, MOST_ANIMALS);
  const ids = animals.map(({ id }) => id);
  return {
    season,
    rules,
    leftOut: candidates.length - animals.length,
    entries: await entryInputs(work),
    animals: animals.map(({ id, number, name, sex, label, hatchedOn }) => {
      const onBoard = board.get(id);
      const readiness = onBoard?.readiness ?? null;
      return {
        id,
        number,
        name,
        sex: sex as 'female' | 'male',
        label,
        loci: packedLoci(genetics, id),
        notReady: [
          ...(onBoard && 'pairing' in onBoard ? underWay(onBoard) : []),
          ...reasonsAgainst(readiness),
        ],
        readyIn: yearsUntilReady(hatchedOn, sex as 'female' | 'male', readiness, rules, work.today),
        freeLoad: sex === 'male' ? (loads.get(id) ?? rules.maleLoad) : 0,
        size:
          sex === 'female'
            ? clutchSize(clutches.filter(({ dam }) => dam === number).map(({ eggs, slugs }) => eggs - slugs))
            : null,
      };
    }),
    hatch: { share: hatchShare(hatched, good), eggs: good },
    kinship: ids.length > 0 ? await genetics.ask({ ask: 'kinships', animals: ids }) : [],
  };
}

/** What an animal may be, without the loci at which it is wild type for certain. */
function packedLoci(genetics: Genetics, id: string): PackedLoci {
  return [...parentOf(genetics, id).loci]
    .filter(([, genotypes]) => genotypes.some(({ genotype, p }) => p > 0 && genotype.some((a) => a !== WILD)))
    .map(([locus, genotypes]) => [locus, genotypes.map(({ genotype: [a, b], p }) => [a, b, p])]);
}

/** A female that has eggs this season, or is about to, is not planned with for it again. */
function underWay({ pairing }: BoardFemale): NotReady[] {
  if (!pairing) return [];
  if (pairing.clutch) return [{ code: 'laid-this-season', facts: {} }];
  return ['ovulated', 'pre-lay'].includes(pairing.forecast.stage) ? [{ code: 'near-laying', facts: {} }] : [];
}

function reasonsAgainst(readiness: Readiness | null): NotReady[] {
  if (!readiness) return [{ code: 'not-grown', facts: {} }];
  return readiness.reasons.filter(({ side }) => side === 'against');
}

function yearsUntilReady(
  hatchedOn: string | null,
  sex: 'female' | 'male',
  readiness: Readiness | null,
  rules: SeasonRules,
  today: string,
): number {
  if (readiness?.ready) return 0;
  const from = sex === 'female' ? rules.femaleFromYears : rules.maleFromYears;
  const age = hatchedOn ? daysBetween(hatchedOn, today) / YEAR_DAYS : from;
  return Math.max(GROWS_INTO_IT, from - age);
}
