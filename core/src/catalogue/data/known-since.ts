/**
 * About when an allele was first bred from or recognised as a gene, by allele id. From memory, no source; the years of genes that are
 * not listed are not known here.
 */
export const KNOWN_SINCE: Readonly<Record<string, number>> = {
  albino: 1992,
  ghost: 1994,
  caramel: 1996,
  'axanthic-a': 1997,
  pastel: 1997,
  pied: 1997,
  clown: 1999,
  'genetic-stripe': 1999,
  spider: 1999,
  woma: 1999,
  mojave: 2000,
  lavender: 2001,
  lesser: 2001,
  pinstripe: 2001,
  'black-pastel': 2002,
  calico: 2002,
  cinnamon: 2002,
  enchi: 2002,
  fire: 2002,
  banana: 2003,
  'desert-ghost': 2003,
  'yellow-belly': 2003,
  spotnose: 2004,
  champagne: 2005,
  ghi: 2007,
  'scaleless-head': 2010,
};
