import type { Allele, Compound, Expression, Locus, Viability, WelfareNote } from '../../loci/locus.ts';
import { FURTHER_GENES } from './further-genes.ts';

/*
 * The built-in catalogue of genes. Common practice of the trade, no source: names, expressions and cautions as breeders
 * use them. The sex linkage of banana follows Mallery & Carrillo 2016 (Phyllomedusa 15); its recombination of 0.07 is an
 * assumption. Data only: nothing here computes.
 */

const show = (id: string, name: string, double?: string): Allele => ({
  id,
  name,
  expression: 'incomplete-dominant',
  ...(double ? { double } : {}),
});
const dominant = (id: string, name: string): Allele => ({ id, name, expression: 'dominant' });
const recessive = (id: string, name: string): Allele => ({ id, name, expression: 'recessive' });
const compound = (a: string, b: string, name: string): Compound => ({
  alleles: a < b ? [a, b] : [b, a],
  name,
});
const single = (allele: Allele, more: Partial<Locus> = {}): Locus => ({
  id: allele.id,
  name: allele.name,
  alleles: [allele],
  compounds: [],
  ...more,
});

const caution = (copies: 1 | 2, alleles: readonly string[], text: string): WelfareNote => ({
  copies,
  alleles,
  text,
});

/** Two copies are taken not to live. Common practice, no source; open to correction. */
const lethal = (allele: string): readonly Viability[] => [{ genotype: [allele, allele], p: 0 }];

const BLUE_EYED = ['bamboo', 'lesser', 'mocha', 'mojave', 'mystic', 'phantom', 'special'];

const COMPLEXES: readonly Locus[] = [
  {
    id: 'blue-eyed-white',
    name: 'Blue-eyed white complex',
    alleles: [
      show('mojave', 'Mojave'),
      show('lesser', 'Lesser'),
      show('phantom', 'Phantom'),
      show('mystic', 'Mystic'),
      show('special', 'Special'),
      show('bamboo', 'Bamboo'),
      show('mocha', 'Mocha'),
    ],
    compounds: [
      compound('mojave', 'special', 'Crystal'),
      compound('mojave', 'mystic', 'Mystic Potion'),
      compound('mojave', 'phantom', 'Purple Passion'),
    ],
    doublesHide: 'everything',
    doublesThatHide: BLUE_EYED.flatMap((a, i) => BLUE_EYED.slice(i).map((b) => `${a}/${b}`)).filter(
      (phenotype) => phenotype !== 'phantom/phantom' && phenotype !== 'mystic/mystic',
    ),
    notes: [
      'Doubles and most compounds are white or nearly white with blue eyes; the double mojave has a grey head.',
      'Double phantom and double mystic are dark, patterned and purplish.',
    ],
  },
  {
    id: 'yellow-belly-complex',
    name: 'Yellow belly complex',
    alleles: [
      show('yellow-belly', 'Yellow Belly', 'Ivory'),
      show('asphalt', 'Asphalt'),
      show('gravel', 'Gravel'),
      show('specter', 'Specter'),
      show('spark', 'Spark'),
    ],
    compounds: [
      compound('yellow-belly', 'asphalt', 'Freeway'),
      compound('yellow-belly', 'gravel', 'Highway'),
      compound('yellow-belly', 'specter', 'Super Stripe'),
      compound('yellow-belly', 'spark', 'Puma'),
    ],
    doublesHide: 'everything',
    doublesThatHide: ['yellow-belly/yellow-belly'],
    notes: ['Doubles and compounds are unmistakable; singles are often only “one of these”.'],
  },
  {
    id: 'dark-complex',
    name: 'Dark complex',
    alleles: [show('cinnamon', 'Cinnamon'), show('black-pastel', 'Black Pastel')],
    compounds: [compound('cinnamon', 'black-pastel', 'Eight Ball')],
    welfare: [
      caution(
        2,
        ['cinnamon', 'black-pastel'],
        'Two copies in the dark complex: often kinked or duck-billed.',
      ),
    ],
  },
  {
    id: 'black-eyed-white',
    name: 'Black-eyed white complex',
    alleles: [
      show('fire', 'Fire'),
      show('vanilla', 'Vanilla'),
      show('disco', 'Disco'),
      show('lemonback', 'Lemonback'),
      show('flame', 'Flame'),
      show('sulfur', 'Sulfur'),
    ],
    compounds: [compound('fire', 'vanilla', 'Vanilla Cream')],
    doublesHide: 'everything',
    doublesThatHide: ['fire/fire'],
    notes: ['The double fire is white with black eyes.'],
  },
  {
    id: 'spider-blackhead',
    name: 'Spider and blackhead',
    alleles: [dominant('spider', 'Spider'), show('blackhead', 'Blackhead')],
    compounds: [],
    viability: lethal('spider'),
    welfare: [
      caution(1, ['spider'], 'Spider comes with a neurological wobble.'),
      caution(2, ['spider'], 'Two copies of spider are thought not to live.'),
    ],
  },
  {
    id: 'enchi-complex',
    name: 'Enchi and het red axanthic',
    alleles: [show('enchi', 'Enchi'), show('het-red-axanthic', 'Het Red Axanthic', 'Red Axanthic')],
    compounds: [],
    notes: ['Two copies of het red axanthic are grey and disrupted.'],
  },
  {
    id: 'albino-complex',
    name: 'Albino complex',
    alleles: [recessive('albino', 'Albino'), recessive('candy', 'Candy'), recessive('toffee', 'Toffee')],
    compounds: [compound('albino', 'candy', 'Candino'), compound('albino', 'toffee', 'Toffino')],
    hides: 'black',
  },
];

const SHOWING: readonly Locus[] = [
  single(show('pastel', 'Pastel'), {
    notes: ['Two copies are stronger throughout, with small notches behind the eyes on the head mark.'],
  }),
  single(show('orange-dream', 'Orange Dream')),
  single(show('leopard', 'Leopard')),
  single(show('spotnose', 'Spotnose', 'Powerball'), {
    welfare: [caution(2, ['spotnose'], 'Two copies of spotnose (Powerball) wobble.')],
  }),
  single(show('mahogany', 'Mahogany', 'Suma')),
  single(show('ghi', 'GHI')),
  single(show('red-stripe', 'Red Stripe')),
  single(show('acid', 'Acid')),
  single(show('bongo', 'Bongo')),
  single(show('blade', 'Blade')),
  single(show('confusion', 'Confusion')),
  single(show('cypress', 'Cypress')),
  single(show('chocolate', 'Chocolate')),
  single(show('trick', 'Trick')),
  single(show('twister', 'Twister')),
  single(show('gobi', 'Gobi')),
  single(dominant('desert', 'Desert'), {
    welfare: [caution(1, ['desert'], 'Desert females rarely lay safely: do not breed them.')],
  }),
  single(show('champagne', 'Champagne'), {
    viability: lethal('champagne'),
    welfare: [
      caution(1, ['champagne'], 'Champagne comes with a wobble.'),
      caution(2, ['champagne'], 'Two copies of Champagne do not live.'),
    ],
  }),
  single(show('hgw', 'HGW', 'Pearl'), {
    viability: lethal('hgw'),
    welfare: [
      caution(1, ['hgw'], 'HGW comes with a wobble.'),
      caution(2, ['hgw'], 'Two copies of HGW do not live.'),
    ],
  }),
  single(show('woma', 'Woma'), {
    welfare: [caution(1, ['woma'], 'Some womas wobble; what two copies do is debated.')],
  }),
  single(show('scaleless-head', 'Scaleless Head', 'Scaleless'), {
    welfare: [
      caution(2, ['scaleless-head'], 'Two copies (Scaleless) are without scales and need special care.'),
    ],
  }),
  single(show('sahara', 'Sahara')),
  single(show('banana', 'Banana'), { sexLinked: { recombination: 0.07 }, hides: 'black' }),
  single(dominant('pinstripe', 'Pinstripe')),
  single(dominant('calico', 'Calico')),
];

const RECESSIVE: readonly Locus[] = [
  single(recessive('clown', 'Clown')),
  single(recessive('pied', 'Pied'), { hides: 'pattern' }),
  single(recessive('lavender', 'Lavender'), { hides: 'black' }),
  single(recessive('desert-ghost', 'Desert Ghost')),
  single(recessive('ghost', 'Ghost')),
  single(recessive('axanthic-a', 'Axanthic A')),
  single(recessive('axanthic-b', 'Axanthic B')),
  single(recessive('axanthic-c', 'Axanthic C')),
  single(recessive('genetic-stripe', 'Genetic Stripe')),
  single(recessive('ultramel', 'Ultramel')),
  single(recessive('caramel', 'Caramel'), {
    welfare: [caution(2, ['caramel'], 'Caramels are prone to kinks, and the females are often infertile.')],
  }),
  single(recessive('puzzle', 'Puzzle')),
  single(recessive('tri-stripe', 'Tri-Stripe')),
  single(recessive('monsoon', 'Monsoon')),
  single(recessive('sunset', 'Sunset')),
];

/** One row of the table of further genes. */
interface FurtherGene {
  readonly id: string;
  readonly name: string;
  readonly expression: Expression;
  readonly double: string;
  readonly words: readonly string[];
  readonly markers: readonly string[];
}

const EXPRESSIONS: Readonly<Record<string, Expression>> = {
  s: 'incomplete-dominant',
  d: 'dominant',
  r: 'recessive',
};

/** The genes that are seen less often, as their table gives them. */
export const FURTHER: readonly FurtherGene[] = FURTHER_GENES.trim()
  .split('\n')
  .map((line) => {
    const [id, name, mode, double, words, markers] = line.split('|').map((cell) => cell.trim());
    const list = (cell: string | undefined, by: string): string[] =>
      (cell ?? '').split(by).flatMap((one) => one.trim() || []);
    return {
      id: id!,
      name: name!,
      expression: EXPRESSIONS[mode!]!,
      double: double!,
      words: list(words, ','),
      markers: list(markers, ';'),
    };
  });

/** What their table has no column for. */
const FURTHER_RULES: Readonly<Record<string, Partial<Locus>>> = { leucistic: { hides: 'everything' } };

const further = (isRecessive: boolean): Locus[] =>
  FURTHER.filter(({ expression }) => (expression === 'recessive') === isRecessive).map(
    ({ id, name, expression, double }) =>
      single({ id, name, expression, ...(double ? { double } : {}) }, FURTHER_RULES[id]),
  );

/** In the order in which a label names them: what shows first, recessive loci last. */
export const BUILT_IN_LOCI: readonly Locus[] = [
  ...SHOWING,
  ...further(false),
  ...COMPLEXES,
  ...RECESSIVE,
  ...further(true),
];

/** Where the trade disputes to which locus an allele belongs: the loci that are named, the catalogue's own first. */
export const DISPUTED_ALLELISM: Readonly<Record<string, readonly string[]>> = {
  'het-red-axanthic': ['enchi-complex', 'dark-complex'],
};

export const BUILT_IN_VERSION = '2026.4';
