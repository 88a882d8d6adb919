/*
 * Words of the trade for one gene. Common practice, no source. A word listed under two genes is asked about, never
 * guessed. Blanks, hyphens and plurals need no entry: "yellowbelly" and "Yellow-Belly" are read as "Yellow Belly".
 */

/** Abbreviations and spelled variants: read, and written back by the gene's own name. */
export const SPELLINGS: Readonly<Record<string, readonly string[]>> = {
  'yellow-belly': ['yb', 'y belly', 'yelly belly', 'yellow bellied'],
  'orange-dream': ['od', 'o dream'],
  'black-pastel': ['bp', 'black pas', 'blk pastel', 'blk pas'],
  'desert-ghost': ['dg', 'd ghost'],
  hgw: ['hidden gene woma', 'hidden gene', 'hg woma'],
  'het-red-axanthic': ['hra', 'het red ax'],
  banana: ['cg', 'nana', 'nanner'],
  leopard: ['leo', 'lep'],
  spotnose: ['spot', 'spotnosed'],
  mojave: ['mojo', 'mohave', 'moj'],
  lesser: ['lesser platinum'],
  cinnamon: ['cinny', 'cinni', 'cinna', 'cin', 'cinnamon pastel'],
  pinstripe: ['pin', 'pins', 'pinstriped', 'pinny'],
  pied: ['piebald', 'pie', 'piedbald'],
  'genetic-stripe': ['g stripe', 'gs', 'gen stripe', 'genetic striped'],
  lavender: ['lav', 'lavender albino', 'lavi', 'lav albino', 'lavender alb'],
  albino: ['alb', 'albinos', 'albi', 'amel', 'amelanistic'],
  candy: ['candy albino'],
  toffee: ['toffee albino', 'toffe'],
  'axanthic-a': ['ax a', 'axanthic', 'ax', 'axan', 'axanth'],
  'axanthic-b': ['ax b', 'axanthic', 'ax', 'axan', 'axanth'],
  'axanthic-c': ['ax c', 'axanthic', 'ax', 'axan', 'axanth'],
  'axanthic-d': ['axanthic', 'ax', 'axan', 'axanth'],
  'black-axanthic': ['black ax', 'blk ax'],
  ultramel: ['ultra', 'ultra mel', 'umel'],
  caramel: ['caramel albino', 'caramel alb', 'cara', 'carmel', 't plus', 't plus albino'],
  vanilla: ['vanil', 'van', 'nilla'],
  champagne: ['cham', 'champ', 'champaign'],
  ghost: ['gho'],
  'tri-stripe': ['tri', 'tristriped'],
  'scaleless-head': ['scaleless headed'],
  pastel: ['pas', 'past', 'pstl', 'pastelle'],
  enchi: ['enchy'],
  fire: ['fyre'],
  spider: ['spid', 'spyder'],
  clown: ['cln', 'klown'],
  mahogany: ['mahog', 'mahoganny', 'mahagony'],
  phantom: ['phan', 'phantm'],
  mystic: ['myst'],
  special: ['spec'],
  specter: ['spectre', 'spec'],
  asphalt: ['asph', 'ashphalt'],
  gravel: ['grav'],
  chocolate: ['choc', 'choco'],
  blackhead: ['bh', 'blk head', 'black headed'],
  'red-stripe': ['rs', 'red striped'],
  cypress: ['cyp'],
  confusion: ['conf'],
  puzzle: ['puz'],
  calico: ['cal'],
  disco: ['disc'],
  twister: ['twist'],
  bamboo: ['bam'],
};

/** Trade names under which the same gene is sold as well: read, and kept as typed. */
export const OTHER_NAMES: Readonly<Record<string, readonly string[]>> = {
  lesser: ['Butter'],
  banana: ['Coral Glow'],
  ghost: ['Hypo', 'Hypomelanistic', 'Orange Ghost', 'Green Ghost', 'Yellow Ghost', 'Butterscotch Ghost'],
  calico: ['Sugar'],
  pastel: ['Lemon Pastel', 'Citrus Pastel', 'Pastel Jungle'],
  'tri-stripe': ['Tri-Color Stripe'],
};

/** Names for an animal that do not tell which alleles of the locus it has: asked about where nothing else tells. */
export const COLLECTIVE_NAMES: Readonly<Record<string, readonly string[]>> = {
  'blue-eyed-white': [
    'bel',
    'blue eyed leucistic',
    'blue eyed lucy',
    'blue eyed white',
    'blue eye lucy',
    'lucy',
  ],
};

/** Further names of doubles. */
export const DOUBLE_WORDS: Readonly<Record<string, readonly string[]>> = {
  fire: ['black eyed leucistic', 'black eyed lucy', 'black eyed white', 'bkel', 'blkel'],
  spotnose: ['power ball'],
  'yellow-belly': ['ivorys', 'ivories'],
  hgw: ['pearl'],
};
