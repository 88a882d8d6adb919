import { CATALOGUE, type Catalogue } from '../../catalogue/catalogue.ts';
import { distributionAt, type Parent } from '../../odds/parent.ts';
import type { Target } from '../../odds/target.ts';
import { distributionKey, pairOdds } from '../best-mates.ts';
import type { Fertility } from '../chances.ts';
import { kindLabel, kindsOf, usefulCopies, type Kind } from './offspring.ts';
import type { Route, RouteAnimal, RouteParent, RouteStep, RouteTerms } from './route.ts';

export interface RouteQuestion {
  readonly target: Target;
  readonly animals: readonly RouteAnimal[];
  /** One animal that may be bought, if the keeper allows it. */
  readonly bought: Omit<RouteAnimal, 'id' | 'readyIn'> | null;
  readonly kinship: (dam: string, sire: string) => number;
  readonly inbreedingBound: number;
  readonly fertility: Fertility;
  readonly terms: RouteTerms;
}

/** An animal that is there, or could be: where it comes from, what it may be at the target's loci, and from when on. */
interface Node {
  readonly sex: 'female' | 'male';
  readonly parent: Parent;
  readonly progress: number;
  /** Expected years from now until it may breed. */
  readonly years: number;
  readonly from:
    | { readonly kind: 'owned'; readonly animalId: string }
    | { readonly kind: 'bought' }
    | { readonly kind: 'bred'; readonly dam: Node; readonly sire: Node; readonly held: Kind };
}

/** Animals of one kind that are taken into account, the soonest ready. */
const SAME_KIND = 2;
/** Kinds that are followed further, after each generation. */
const KINDS_FOLLOWED = 60;
const GENERATIONS_BEFORE_LAST = 2;
const ROUTES_SHOWN = 8;

/**
 * Routes to a target: generation by generation, every pair's kinds of hatchlings are new animals to pair; the most promising
 * are followed (a beam search: not every route is tried). Routes are ranked by the expected years to the first success.
 *
 * @example findRoutes({ target: toTarget(parseGenes('clown')), animals: [], bought: null, kinship: () => 0, inbreedingBound: 0.1, fertility: { size: { first: 6, odds: [1] }, hatch: 1 }, terms: ROUTE_TERMS }) // []
 */
export function findRoutes(question: RouteQuestion, catalogue: Catalogue = CATALOGUE): Route[] {
  const { target } = question;
  const oddsOf = pairOdds(target);
  const kin = kinshipOfNodes(question);
  let known = startNodes(question);
  let newest = known;
  const found: { route: Route; key: string }[] = [];
  collect(known, known);
  for (let generation = 0; generation < GENERATIONS_BEFORE_LAST; generation++) {
    const bred = breedAll(question, known, newest, kin);
    const fresh = mostPromising(bred, known, target);
    if (fresh.length === 0) break;
    known = [...known, ...fresh];
    newest = fresh;
    collect(known, fresh);
  }
  const best = new Map<string, Route>();
  for (const { route, key } of found.toSorted((a, b) => a.route.roughYears - b.route.roughYears))
    if (!best.has(key)) best.set(key, route);
  return shownOf([...best.values()]);

  /** Pairs that can give the target, one of them new. */
  function collect(all: readonly Node[], fresh: readonly Node[]): void {
    const isNew = new Set(fresh);
    for (const dam of all.filter(({ sex }) => sex === 'female')) {
      for (const sire of all.filter(({ sex }) => sex === 'male')) {
        if (!isNew.has(dam) && !isNew.has(sire)) continue;
        const perEgg = oddsOf(sire.parent, dam.parent);
        if (perEgg < 1e-9) continue;
        const inbreeding = kin(dam, sire);
        if (inbreeding > question.inbreedingBound + 1e-9) continue;
        const roughYears = Math.max(dam.years, sire.years) + seasonsFor(perEgg, question);
        const steps = toSteps(dam, sire, perEgg, kin, catalogue);
        const bought = steps.some((step) => step.dam.kind === 'bought' || step.sire.kind === 'bought');
        // Two routes that differ only in which of two like animals is used are one.
        const key = `${bought}|${steps.map((step) => `${step.keep?.label ?? ''}${step.keep?.sex ?? ''}`).join('|')}|${kindKey(dam, target)}|${kindKey(sire, target)}`;
        found.push({ route: { steps, roughYears }, key });
      }
    }
  }
}

/**
 * The routes that are worth comparing, of all in order: the best, and of each length the best too, since a short route that
 * is slow on average may still bring the target early more often.
 */
function shownOf(routes: readonly Route[]): Route[] {
  const bestOfLength = new Map<number, Route>();
  for (const route of routes)
    if (!bestOfLength.has(route.steps.length)) bestOfLength.set(route.steps.length, route);
  const apart = [...bestOfLength.values()];
  const others = routes.filter((route) => !apart.includes(route));
  return [...apart, ...others].slice(0, ROUTES_SHOWN).toSorted((a, b) => a.roughYears - b.roughYears);
}

/** Expected seasons until the first success of a pair, missed seasons included. */
function seasonsFor(perEgg: number, { fertility, terms }: RouteQuestion): number {
  const none = fertility.size.odds.reduce(
    (sum, share, i) => sum + share * (1 - perEgg * fertility.hatch) ** (fertility.size.first + i),
    0,
  );
  return 1 / ((1 - none) * (1 - terms.missedSeason));
}

function startNodes({ target, animals, bought }: RouteQuestion): Node[] {
  const nodes = animals.map((animal): Node => ({
    sex: animal.sex,
    parent: animal.parent,
    progress: progressOf(animal.parent, target),
    years: animal.readyIn,
    from: { kind: 'owned', animalId: animal.id },
  }));
  const counts = new Map<string, number>();
  const few = nodes
    .toSorted((a, b) => a.years - b.years)
    .filter((node) => {
      const key = kindKey(node, target);
      counts.set(key, (counts.get(key) ?? 0) + 1);
      return counts.get(key)! <= SAME_KIND;
    });
  if (!bought) return few;
  const node: Node = {
    ...bought,
    progress: progressOf(bought.parent, target),
    years: 0,
    from: { kind: 'bought' },
  };
  return [...few, node];
}

const progressOf = (parent: Parent, target: Target): number =>
  target.reduce((sum, wanted) => sum + usefulCopies(wanted, distributionAt(parent, wanted.locus.id)), 0);

function kindKey(node: Node, target: Target): string {
  return `${node.sex}|${target.map(({ locus }) => distributionKey(distributionAt(node.parent, locus.id))).join('|')}`;
}

function breedAll(
  question: RouteQuestion,
  all: readonly Node[],
  newest: readonly Node[],
  kin: (a: Node, b: Node) => number,
): Node[] {
  const isNew = new Set(newest);
  const bred: Node[] = [];
  for (const dam of all.filter(({ sex }) => sex === 'female')) {
    for (const sire of all.filter(({ sex }) => sex === 'male')) {
      if (!isNew.has(dam) && !isNew.has(sire)) continue;
      if (dam.progress + sire.progress <= 0 || kin(dam, sire) > question.inbreedingBound + 1e-9) continue;
      const start = Math.max(dam.years, sire.years);
      for (const held of kindsOf(sire.parent, dam.parent, question.target)) {
        if (held.progress <= 0) continue;
        const growth = question.terms.growth[held.sex];
        bred.push({
          sex: held.sex,
          parent: held.parent,
          progress: held.progress,
          years: start + seasonsFor(held.perEgg, question) + (growth.from + growth.to) / 2,
          from: { kind: 'bred', dam, sire, held },
        });
      }
    }
  }
  return bred;
}

/** Of each kind the soonest, and of all kinds those with the most of the target for their time. */
function mostPromising(bred: readonly Node[], known: readonly Node[], target: Target): Node[] {
  const soonest = new Map<string, Node>();
  for (const node of known) {
    const key = kindKey(node, target);
    const old = soonest.get(key);
    if (!old || node.years < old.years) soonest.set(key, node);
  }
  const fresh = new Map<string, Node>();
  for (const node of bred) {
    const key = kindKey(node, target);
    const old = fresh.get(key) ?? soonest.get(key);
    if (!old || node.years < old.years) fresh.set(key, node);
  }
  return [...fresh.values()]
    .toSorted((a, b) => b.progress / (1 + b.years / 8) - a.progress / (1 + a.years / 8))
    .slice(0, KINDS_FOLLOWED);
}

/** The kinship of animals that do not exist yet, from that of those they would descend from. */
function kinshipOfNodes({ kinship }: RouteQuestion): (a: Node, b: Node) => number {
  const known = new Map<Node, Map<Node, number>>();
  const depth = (node: Node): number =>
    node.from.kind === 'bred' ? 1 + Math.max(depth(node.from.dam), depth(node.from.sire)) : 0;
  const kin = (a: Node, b: Node): number => {
    const old = known.get(a)?.get(b);
    if (old !== undefined) return old;
    const value = work(a, b);
    known.set(a, (known.get(a) ?? new Map<Node, number>()).set(b, value));
    return value;
  };
  const work = (a: Node, b: Node): number => {
    const [young, other] = depth(a) >= depth(b) ? [a, b] : [b, a];
    if (young.from.kind === 'bred') {
      const { dam, sire } = young.from;
      return young === other ? 0.5 * (1 + kin(dam, sire)) : 0.5 * (kin(dam, other) + kin(sire, other));
    }
    if (young.from.kind === 'owned' && other.from.kind === 'owned')
      return kinship(young.from.animalId, other.from.animalId);
    return young === other ? 0.5 : 0;
  };
  return kin;
}

/** The pairings in the order in which they can be made; a hatchling that is used twice is bred once. */
function toSteps(
  dam: Node,
  sire: Node,
  perEgg: number,
  kin: (a: Node, b: Node) => number,
  catalogue: Catalogue,
): RouteStep[] {
  const steps: RouteStep[] = [];
  const done = new Map<Node, number>();
  const place = (node: Node): RouteParent => {
    if (node.from.kind !== 'bred') return node.from;
    const at = done.get(node);
    if (at !== undefined) return { kind: 'held-back', step: at };
    const { dam: mother, sire: father, held } = node.from;
    const step: RouteStep = {
      dam: place(mother),
      sire: place(father),
      keep: { sex: held.sex, phenotype: held.phenotype, label: kindLabel(held, catalogue) },
      perEgg: held.perEgg,
      inbreeding: kin(mother, father),
    };
    done.set(node, steps.push(step) - 1);
    return { kind: 'held-back', step: done.get(node)! };
  };
  const last = { dam: place(dam), sire: place(sire), keep: null, perEgg, inbreeding: kin(dam, sire) };
  return [...steps, last];
}

/**
 * Genes of a target that no animal has a copy of, by allele id: what would have to be bought.
 *
 * @example missingAlleles(toTarget(parseGenes('Pastel Clown')), [{ parent: toParent(parseGenes('pastel'), 'male') }]) // ["clown"]
 */
export function missingAlleles(target: Target, animals: readonly Pick<RouteAnimal, 'parent'>[]): string[] {
  return target.flatMap(({ locus, wanted }) => {
    const alleles = [...new Set(wanted[0]?.filter((allele) => allele !== '+') ?? [])];
    return alleles.filter((allele) =>
      animals.every(({ parent }) =>
        distributionAt(parent, locus.id).every(({ genotype, p }) => p <= 0 || !genotype.includes(allele)),
      ),
    );
  });
}
