import type { Pedigree, PedigreeAnimal } from '../../pedigree/document.ts';
import { parentsOf } from '../../pedigree/index-pedigree.ts';
import { kinByDistance, withAncestors } from '../../pedigree/kin.ts';
import { WILD } from '../../loci/locus.ts';
import type { Genotype, WeightedGenotype } from '../../loci/genotype.ts';
import { logSumExp } from '../../numeric/log-sum-exp.ts';
import { PedigreeEngine } from '../engine.ts';

export type ExplanationKind =
  /** What was seen on this animal is wrong. */
  | 'identification'
  /** Another male sired these clutch-mates. */
  | 'sire'
  /** This founder carries more than was stated. */
  | 'carries-more'
  /** The sex of this animal is wrong. */
  | 'sex'
  /** The dam of these clutch-mates bred without a male. */
  | 'bred-alone';

export interface Explanation {
  readonly kind: ExplanationKind;
  /** One animal, or clutch-mates. */
  readonly animals: readonly string[];
  /** For `carries-more`: the alleles that would have to be there. */
  readonly alleles: readonly string[];
  /** How much of all explanations' weight this one has; they add up to 1. */
  readonly share: number;
}

/** How often each kind happens, before looking at the records. Assumptions, stated in docs/science.md. */
export const HOW_OFTEN: Readonly<Record<ExplanationKind, number>> = {
  identification: 0.02,
  sire: 0.01,
  'carries-more': 0.01,
  sex: 0.02,
  'bred-alone': 0.0005,
};

/** Relatives beyond these are left out: they say little, and cost time. */
const NEAREST = 250;

/** A change to the pedigree that would make its records hold together. */
interface Hypothesis {
  readonly kind: ExplanationKind;
  readonly animals: readonly string[];
  readonly alleles: readonly string[];
  readonly change: (animal: PedigreeAnimal) => PedigreeAnimal;
}

/**
 * Ranks what may have gone wrong: each hypothesis' weight is how often such a thing happens, times the probability of all
 * the records of the relatives, at all loci, were it so. So a wrong sire must also fit what the clutch shows at other loci,
 * and a founder that carries more must fit its other young.
 *
 * @param loci - those at which the records clash
 * @param animals - a smallest set whose calls cannot hold together
 * @returns those that make the records possible, the weightiest first
 * @example explainConflict(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [{ id: 'F1', sex: 'female' }] }), [], ['F1']) // [{"kind": "identification", "animals": ["F1"], "alleles": [], "share": 1}]
 */
export function explainConflict(
  pedigree: Pedigree,
  loci: readonly string[],
  animals: readonly string[],
): Explanation[] {
  const near = nearby(pedigree, animals);
  // Loci that clash for reasons of their own would hide every answer.
  const unsound = new Set(
    new PedigreeEngine(near).clashes.flatMap((clash) => clash.loci).filter((locus) => !loci.includes(locus)),
  );
  const sound = { ...near, loci: near.loci.filter((locus) => !unsound.has(locus.id)) };
  const all = hypotheses(sound, loci, animals);
  const weighed = bySlips(sound, loci, all);
  const total = logSumExp(weighed.map(({ log }) => log));
  return weighed
    .map(({ hypothesis: { kind, animals: whom, alleles }, log }) => ({
      kind,
      animals: whom,
      alleles,
      share: Math.exp(log - total),
    }))
    .toSorted((a, b) => b.share - a.share);
}

/** Several slips explain the records better than one only where they are so many times as likely. */
const CLEARLY = 10;

/**
 * One slip alone, with all else taken as right. Where no single one makes everything possible, or several explain it far
 * better (two wrong identifications rather than another sire), the other records are held by their error rate instead.
 */
function bySlips(pedigree: Pedigree, loci: readonly string[], all: readonly Hypothesis[]): Weighed[] {
  const best = (list: readonly Weighed[]): number => Math.max(-Infinity, ...list.map(({ log }) => log));
  const alone = weigh(pedigree, all);
  const open = doubted(pedigree, loci);
  const identifications = all.filter(({ kind }) => kind === 'identification');
  const among = weigh(open, identifications);
  if (alone.length > 0 && best(among) < best(alone) + Math.log(CLEARLY)) return alone;
  const others = all.filter(({ kind }) => kind !== 'identification');
  return [...among, ...weigh(open, others)];
}

interface Weighed {
  readonly hypothesis: Hypothesis;
  readonly log: number;
}

/** The hypotheses that make the records possible, each with the logarithm of its weight. */
function weigh(pedigree: Pedigree, all: readonly Hypothesis[]): Weighed[] {
  // A change of one animal's records touches few loci: one engine takes them up in turn.
  const engine = new PedigreeEngine(pedigree);
  return all.flatMap((hypothesis) => {
    const changed = { ...pedigree, animals: pedigree.animals.map(hypothesis.change) };
    const isOfRecords = hypothesis.kind === 'identification' || hypothesis.kind === 'carries-more';
    if (isOfRecords) engine.update(changed);
    const log = (isOfRecords ? engine : new PedigreeEngine(changed)).logLikelihood;
    return log === null ? [] : [{ hypothesis, log: log + Math.log(HOW_OFTEN[hypothesis.kind]) }];
  });
}

/** The same records, of which none at these loci is certain: each is as often wrong as identifications are. */
function doubted(pedigree: Pedigree, loci: readonly string[]): Pedigree {
  const least = HOW_OFTEN.identification;
  return {
    ...pedigree,
    animals: pedigree.animals.map((animal) =>
      animal.calls?.some(({ locus }) => loci.includes(locus))
        ? {
            ...animal,
            calls: animal.calls.map((call) =>
              loci.includes(call.locus) ? { ...call, error: Math.max(call.error ?? 0, least) } : call,
            ),
          }
        : animal,
    ),
  };
}

function nearby(pedigree: Pedigree, animals: readonly string[]): Pedigree {
  const distance = new Map<string, number>();
  for (const id of animals) {
    for (const [kin, steps] of kinByDistance(pedigree.animals, id)) {
      distance.set(kin, Math.min(steps, distance.get(kin) ?? Infinity));
    }
  }
  const nearest = [...distance].toSorted((a, b) => a[1] - b[1]).slice(0, NEAREST);
  return {
    ...pedigree,
    animals: withAncestors(
      pedigree.animals,
      nearest.map(([id]) => id),
    ),
  };
}

function hypotheses(pedigree: Pedigree, loci: readonly string[], animals: readonly string[]): Hypothesis[] {
  const byId = new Map(pedigree.animals.map((animal) => [animal.id, animal]));
  const isParent = new Set(pedigree.animals.flatMap(parentsOf));
  const linked = pedigree.loci.some((locus) => loci.includes(locus.id) && locus.sexLinked);
  const clashing = animals.map((id) => byId.get(id)!);
  const found: Hypothesis[] = clashing.map(({ id }) => wrongIdentification(id, loci));
  const clutches = new Set<string>();
  for (const animal of clashing) {
    if (linked && animal.sex !== 'unknown' && !isParent.has(animal.id)) found.push(wrongSex(animal));
    if (!animal.sires?.length) continue;
    const mates = pedigree.animals.filter((other) => isClutchMate(animal, other));
    const key = mates.map(({ id }) => id).join();
    if (clutches.has(key)) continue;
    clutches.add(key);
    found.push(otherSire(mates));
    if (animal.dam && mates.every(({ id, sex }) => !isParent.has(id) && sex !== 'male'))
      found.push(bredAlone(mates));
  }
  const above = withAncestors(pedigree.animals, animals).filter((animal) => animal.founder);
  for (const founder of above) {
    for (const locus of pedigree.loci)
      if (loci.includes(locus.id)) found.push(...carriesMore(founder, locus));
  }
  return found;
}

function isClutchMate(a: PedigreeAnimal, b: PedigreeAnimal): boolean {
  const sires = ({ sires: list }: PedigreeAnimal): string => (list ?? []).map(({ id }) => id).join();
  return a.dam === b.dam && sires(a) === sires(b) && (b.sires?.length ?? 0) > 0;
}

function wrongIdentification(id: string, loci: readonly string[]): Hypothesis {
  return {
    kind: 'identification',
    animals: [id],
    alleles: [],
    change: (animal) =>
      animal.id === id
        ? { ...animal, calls: (animal.calls ?? []).filter((call) => !loci.includes(call.locus)) }
        : animal,
  };
}

function wrongSex({ id, sex }: PedigreeAnimal): Hypothesis {
  const other = sex === 'male' ? ('female' as const) : ('male' as const);
  return {
    kind: 'sex',
    animals: [id],
    alleles: [],
    change: (animal) => (animal.id === id ? { ...animal, sex: other } : animal),
  };
}

function withoutSires(animal: PedigreeAnimal): PedigreeAnimal {
  const { sires: _, ...rest } = animal;
  return rest;
}

function otherSire(mates: readonly PedigreeAnimal[]): Hypothesis {
  const ids = mates.map(({ id }) => id);
  return {
    kind: 'sire',
    animals: ids,
    alleles: [],
    change: (animal) => (ids.includes(animal.id) ? withoutSires(animal) : animal),
  };
}

function bredAlone(mates: readonly PedigreeAnimal[]): Hypothesis {
  const ids = mates.map(({ id }) => id);
  return {
    kind: 'bred-alone',
    animals: ids,
    alleles: [],
    change: (animal) => (ids.includes(animal.id) ? { ...withoutSires(animal), bredAlone: true } : animal),
  };
}

/** One hypothesis for each allele that would fit into a place that the statement calls wild type. */
function carriesMore(founder: PedigreeAnimal, locus: Pedigree['loci'][number]): Hypothesis[] {
  const stated = founder.founder?.[locus.id] ?? [{ genotype: [WILD, WILD] as Genotype, p: 1 }];
  return locus.alleles.flatMap((allele): Hypothesis[] => {
    const more = stated.flatMap(({ genotype, p }): WeightedGenotype[] => {
      const free = genotype.indexOf(WILD);
      return free < 0 || p === 0 ? [] : [{ genotype: genotype.with(free, allele) as unknown as Genotype, p }];
    });
    const sum = more.reduce((total, { p }) => total + p, 0);
    if (sum === 0) return [];
    const distribution = more.map(({ genotype, p }) => ({ genotype, p: p / sum }));
    return [
      {
        kind: 'carries-more',
        animals: [founder.id],
        alleles: [allele],
        change: (animal) =>
          animal.id === founder.id
            ? { ...animal, founder: { ...animal.founder, [locus.id]: distribution } }
            : animal,
      },
    ];
  });
}
