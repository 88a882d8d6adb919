import type { Catalogue } from '../catalogue/catalogue.ts';
import type { CatalogueTell } from '../catalogue/gather-tells.ts';
import { CostError } from '../errors.ts';
import { appearance, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import { genotypeLabel } from '../notation/label.ts';
import { coverOn, showsTell } from './cover.ts';

/** What an animal can be before it is looked at, given one sire and one sex: loci are then independent. */
export interface Supposition {
  readonly sire: string | null;
  readonly sex: 'female' | 'male';
  /** A probability; over the suppositions of one animal they add up to 1. */
  readonly weight: number;
  readonly loci: readonly { readonly locus: string; readonly genotypes: readonly WeightedGenotype[] }[];
}

export type Sighting = 'seen' | 'not-seen';
/** Tell id -> what was seen. A tell left out is one of which nothing can be said. */
export type Sightings = Readonly<Record<string, Sighting>>;

/** One thing the animal can be, as far as the eye can tell. */
export interface Candidate {
  readonly label: string;
  /** Locus id -> what shows there, where something does. */
  readonly looks: Readonly<Record<string, string>>;
  /** Before it was looked at, and with the tells. */
  readonly pBefore: number;
  readonly p: number;
}

/** How one gene stands: whether it shows. */
export interface GeneOdds {
  readonly locus: string;
  readonly looks: string;
  readonly label: string;
  readonly pBefore: number;
  readonly p: number;
}

/** What one zone's look at one gene adds. */
export interface TellWeight {
  readonly tell: string;
  /** How many times likelier the sighting is where the gene shows uncovered than where it does not. */
  readonly factor: number;
  /** Another tell of the gene in the same zone counts instead. */
  readonly countedWith: string | null;
}

export interface Ranking {
  /** Likeliest first. */
  readonly candidates: readonly Candidate[];
  /** How many more there are. */
  readonly rarer: number;
  readonly genes: readonly GeneOdds[];
  readonly tells: readonly TellWeight[];
  /** Carried unseen, where a marker was looked for: allele id -> odds before and after. */
  readonly carried: readonly { readonly allele: string; readonly pBefore: number; readonly p: number }[];
  /** Tells seen of genes that the records leave no room for. */
  readonly outside: readonly string[];
  /** Who the sire is, where that is open, given all this: id -> probability. */
  readonly sires: Readonly<Record<string, number>>;
  /** The probability that it is female, given all this. */
  readonly pFemale: number;
}

/** The possible looks of one animal as a box of numbers: every combination of what its loci can show. */
export interface LooksSpace {
  readonly loci: readonly { readonly locus: Locus; readonly looks: readonly string[] }[];
  readonly size: number;
  /** One for each combination, row-major over `loci`, the last one fastest; adds up to 1. */
  readonly before: Float64Array;
  readonly after: Float64Array;
}

const NEGLIGIBLE = 1e-9;
const LARGEST = 2_000_000;
const SHOWN = 24;

const chanceOf = (tell: CatalogueTell, sighting: Sighting, shows: boolean): number => {
  const seen = shows ? tell.pWith : tell.pWithout;
  return sighting === 'seen' ? seen : 1 - seen;
};

/** How far a sighting moves the odds of the gene, whichever way. */
const telling = (tell: CatalogueTell, sighting: Sighting): number =>
  Math.abs(Math.log(chanceOf(tell, sighting, true) / chanceOf(tell, sighting, false)));

/** What one look takes in: a gene's tells within a zone. */
export const oneLook = ({ zone, isMarker, looks }: CatalogueTell): string =>
  `${zone}|${isMarker}|${looks.toSorted().join()}`;

/**
 * The sightings that count: in one zone the tells of one gene are seen with one look, so of those only the most telling
 * one does.
 */
export function countedSightings(
  tells: readonly CatalogueTell[],
  sightings: Sightings,
): { tell: CatalogueTell; sighting: Sighting; instead: CatalogueTell[] }[] {
  const groups = new Map<string, { tell: CatalogueTell; sighting: Sighting }[]>();
  for (const tell of tells) {
    const sighting = sightings[tell.id];
    if (!sighting) continue;
    const key = oneLook(tell);
    groups.set(key, [...(groups.get(key) ?? []), { tell, sighting }]);
  }
  return [...groups.values()].map((group) => {
    const [most, ...others] = group.toSorted(
      (a, b) => telling(b.tell, b.sighting) - telling(a.tell, a.sighting),
    );
    return { ...most!, instead: others.map(({ tell }) => tell) };
  });
}

/** What can show at each locus over all suppositions, wild type first. Loci at which nothing can show are left out. */
function looksOf(suppositions: readonly Supposition[], catalogue: Catalogue): LooksSpace['loci'] {
  const looks = new Map<string, Set<string>>();
  for (const { loci, weight } of suppositions) {
    if (weight <= 0) continue;
    for (const { locus, genotypes } of loci) {
      const set = looks.get(locus) ?? new Set<string>();
      for (const { genotype, p } of genotypes)
        if (p > NEGLIGIBLE) set.add(appearance(catalogue.locusById(locus)!, genotype));
      looks.set(locus, set);
    }
  }
  return [...looks]
    .filter(([, set]) => set.size > 1 || !set.has(''))
    .toSorted(([a], [b]) => catalogue.compareLoci(a, b))
    .map(([id, set]) => ({ locus: catalogue.locusById(id)!, looks: [...set].toSorted() }));
}

/** One supposition's share of every combination: its weight times the product over its loci. */
function spread(
  loci: LooksSpace['loci'],
  { weight, loci: known }: Supposition,
  likelihood: (locus: Locus, genotype: Genotype) => number,
): Float64Array {
  let table = Float64Array.of(weight);
  for (const { locus, looks } of loci) {
    const genotypes = known.find((one) => one.locus === locus.id)?.genotypes ?? WILD_ONLY;
    const shares = new Float64Array(looks.length);
    for (const { genotype, p } of genotypes) {
      const at = looks.indexOf(appearance(locus, genotype));
      if (at >= 0) shares[at]! += p * likelihood(locus, genotype);
    }
    const wider = new Float64Array(table.length * looks.length);
    for (let i = 0; i < table.length; i++)
      for (let j = 0; j < shares.length; j++) wider[i * shares.length + j] = table[i]! * shares[j]!;
    table = wider;
  }
  return table;
}

const WILD_ONLY: readonly WeightedGenotype[] = [{ genotype: [WILD, WILD], p: 1 }];

/** The tables added up, and all of that made to add up to 1. */
function mix(tables: readonly Float64Array[], size: number): Float64Array {
  const sum = new Float64Array(size);
  for (const table of tables) for (let i = 0; i < size; i++) sum[i]! += table[i]!;
  const total = totalOf(sum);
  return total > 0 ? sum.map((p) => p / total) : sum;
}

const totalOf = (table: Float64Array): number => table.reduce((sum, p) => sum + p, 0);

/** A tell over all combinations: the chance that it is seen on an animal that looks so, and whether its gene shows. */
export interface TellTable {
  readonly seen: Float64Array;
  readonly shows: Uint8Array;
}

/** @returns null where no combination shows the tell's gene: it then tells nothing apart */
export function tabulate(
  space: LooksSpace['loci'],
  size: number,
  tell: CatalogueTell,
  catalogue: Catalogue,
): TellTable | null {
  const shown = space.map(({ looks }) => looks.map((text) => showsTell(tell, text)));
  if (!shown.some((list) => list.includes(true))) return null;
  const covers = space.map(({ locus, looks }, l) =>
    looks.map((text, at) => (shown[l]![at] ? 0 : coverOn(catalogue, locus, text, tell))),
  );
  const seen = new Float64Array(size);
  const shows = new Uint8Array(size);
  const at = new Int32Array(space.length);
  for (let i = 0; i < size; i++) {
    let isShown = false;
    let open = 1;
    for (let l = 0; l < space.length; l++) {
      isShown ||= shown[l]![at[l]!]!;
      open *= 1 - covers[l]![at[l]!]!;
    }
    seen[i] = isShown ? open * tell.pWith + (1 - open) * tell.pWithout : tell.pWithout;
    shows[i] = isShown ? 1 : 0;
    for (let l = space.length - 1; l >= 0 && ++at[l]! === space[l]!.looks.length; l--) at[l] = 0;
  }
  return { seen, shows };
}

/** The chance of a marker's sighting on an animal of this genotype. */
function markerLikelihood(
  counted: ReturnType<typeof countedSightings>,
  locus: Locus,
  genotype: Genotype,
): number {
  return counted.reduce((p, { tell, sighting }) => {
    if (!tell.isMarker || !tell.looks.some((id) => locus.alleles.some((allele) => allele.id === id)))
      return p;
    return (
      p *
      chanceOf(
        tell,
        sighting,
        genotype.some((allele) => tell.looks.includes(allele)),
      )
    );
  }, 1);
}

/**
 * What an animal can be, given its pedigree and what was seen of it: the engine's distribution times the chance of each
 * sighting. Sightings are independent of one another given what shows, but for those that one look takes in.
 *
 * @throws CostError where what can show has too many combinations
 */
export function rank(
  suppositions: readonly Supposition[],
  sightings: Sightings,
  catalogue: Catalogue,
): { ranking: Ranking; space: LooksSpace } {
  const loci = looksOf(suppositions, catalogue);
  const size = loci.reduce((product, { looks }) => product * looks.length, 1);
  if (size > LARGEST) throw new CostError(size, LARGEST);
  const counted = countedSightings(catalogue.tells, sightings);
  const marked = counted.some(({ tell }) => tell.isMarker);
  const likelihood = new Float64Array(size).fill(1);
  for (const { tell, sighting } of counted) {
    if (tell.isMarker) continue;
    const table = tabulate(loci, size, tell, catalogue);
    if (!table) continue;
    for (let i = 0; i < size; i++)
      likelihood[i]! *= sighting === 'seen' ? table.seen[i]! : 1 - table.seen[i]!;
  }
  const priors = suppositions.map((supposition) => spread(loci, supposition, () => 1));
  const byMarkers = marked
    ? suppositions.map((supposition) =>
        spread(loci, supposition, (locus, genotype) => markerLikelihood(counted, locus, genotype)),
      )
    : priors;
  const posteriors = byMarkers.map((table) => table.map((p, i) => p * likelihood[i]!));
  const before = mix(priors, size);
  const after = mix(posteriors, size);
  const space: LooksSpace = { loci, size, before, after };
  const candidates = rankCandidates(space, catalogue);
  return {
    space,
    ranking: {
      candidates: candidates.slice(0, SHOWN),
      rarer: Math.max(0, candidates.length - SHOWN),
      genes: geneOdds(space, catalogue),
      tells: counted.flatMap(({ tell, sighting, instead }) => {
        const factor = chanceOf(tell, sighting, true) / chanceOf(tell, sighting, false);
        return [
          { tell: tell.id, factor, countedWith: null },
          ...instead.map(({ id }) => ({ tell: id, factor: 1, countedWith: tell.id })),
        ];
      }),
      carried: marked ? carriedOdds(suppositions, counted, catalogue) : [],
      outside: outsideOf(loci, suppositions, counted),
      ...whoAndWhich(suppositions, posteriors.map(totalOf)),
    },
  };
}

function rankCandidates({ loci, size, before, after }: LooksSpace, catalogue: Catalogue): Candidate[] {
  const order = Array.from({ length: size }, (_, i) => i)
    .filter((i) => before[i]! > NEGLIGIBLE)
    .toSorted((a, b) => after[b]! - after[a]! || before[b]! - before[a]! || a - b);
  return order.map((cell, place) => {
    // Only what is shown needs its words.
    const looks = place < SHOWN ? looksAt(loci, cell) : {};
    return {
      looks,
      label: place < SHOWN ? looksLabel(looks, catalogue) : '',
      pBefore: before[cell]!,
      p: after[cell]!,
    };
  });
}

/** What shows in one combination. */
export function looksAt(loci: LooksSpace['loci'], cell: number): Record<string, string> {
  const looks: Record<string, string> = {};
  let rest = cell;
  for (let l = loci.length - 1; l >= 0; l--) {
    const { locus, looks: all } = loci[l]!;
    const text = all[rest % all.length]!;
    if (text !== '') looks[locus.id] = text;
    rest = Math.floor(rest / all.length);
  }
  return looks;
}

/** The label of an animal that shows this and nothing else. */
export function looksLabel(looks: Readonly<Record<string, string>>, catalogue: Catalogue): string {
  return genotypeLabel(
    Object.fromEntries(
      Object.entries(looks).map(([locus, text]): [string, Genotype] => {
        const [a, b] = text.split('/');
        return [locus, [b === undefined ? WILD : a!, b ?? a!]];
      }),
    ),
    catalogue,
  );
}

function geneOdds({ loci, size, before, after }: LooksSpace, catalogue: Catalogue): GeneOdds[] {
  let stride = size;
  return loci.flatMap(({ locus, looks }) => {
    stride /= looks.length;
    const sums = looks.map(() => [0, 0] as [number, number]);
    for (let i = 0; i < size; i++) {
      const sum = sums[Math.floor(i / stride) % looks.length]!;
      sum[0] += before[i]!;
      sum[1] += after[i]!;
    }
    return looks.flatMap((text, at) =>
      text === ''
        ? []
        : [
            {
              locus: locus.id,
              looks: text,
              label: looksLabel({ [locus.id]: text }, catalogue),
              pBefore: sums[at]![0],
              p: sums[at]![1],
            },
          ],
    );
  });
}

function carriedOdds(
  suppositions: readonly Supposition[],
  counted: ReturnType<typeof countedSightings>,
  catalogue: Catalogue,
): Ranking['carried'] {
  const alleles = new Set(counted.flatMap(({ tell }) => (tell.isMarker ? tell.looks : [])));
  return [...alleles].flatMap((allele) => {
    const locus = catalogue.alleleById(allele)!.locus;
    let [all, carried, allAfter, carriedAfter] = [0, 0, 0, 0];
    for (const { weight, loci } of suppositions) {
      for (const { genotype, p } of loci.find((one) => one.locus === locus.id)?.genotypes ?? []) {
        if (appearance(locus, genotype) !== '') continue;
        const after = weight * p * markerLikelihood(counted, locus, genotype);
        all += weight * p;
        allAfter += after;
        if (!genotype.includes(allele)) continue;
        carried += weight * p;
        carriedAfter += after;
      }
    }
    return carried > 0 ? [{ allele, pBefore: carried / all, p: carriedAfter / allAfter }] : [];
  });
}

function outsideOf(
  loci: LooksSpace['loci'],
  suppositions: readonly Supposition[],
  counted: ReturnType<typeof countedSightings>,
): string[] {
  const open = loci.flatMap(({ looks }) => looks);
  const alleles = new Set(
    suppositions.flatMap((one) =>
      one.loci.flatMap(({ genotypes }) => genotypes.flatMap(({ genotype }) => [...genotype])),
    ),
  );
  return counted
    .filter(({ tell, sighting }) => {
      if (sighting !== 'seen') return false;
      return tell.isMarker
        ? !tell.looks.some((allele) => alleles.has(allele))
        : !open.some((text) => showsTell(tell, text));
    })
    .map(({ tell }) => tell.id);
}

/** What the sightings say of the sire and the sex: each supposition's share of all that is left. */
function whoAndWhich(
  suppositions: readonly Supposition[],
  shares: readonly number[],
): Pick<Ranking, 'sires' | 'pFemale'> {
  const total = shares.reduce((a, b) => a + b, 0);
  const sires: Record<string, number> = {};
  let pFemale = 0;
  suppositions.forEach(({ sire, sex }, s) => {
    const share = total > 0 ? shares[s]! / total : 0;
    if (sire !== null) sires[sire] = (sires[sire] ?? 0) + share;
    if (sex === 'female') pFemale += share;
  });
  return { sires, pFemale };
}
