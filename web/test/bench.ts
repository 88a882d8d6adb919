import type { BenchView, HatchlingView } from '@karyotome/contract';
import { parseParent, visibleOutcomes, type Hypothesis } from '@karyotome/core';

/** What a hatchling of a pair of single-copy genes can be. */
export function halfOf(...alleles: string[]): Hypothesis[] {
  return (['female', 'male'] as const).map((sex) => ({
    sire: 's',
    sex,
    weight: 0.5,
    loci: alleles.map((id) => ({
      locus: id,
      genotypes: [
        { genotype: ['+', '+'] as const, p: 0.5 },
        { genotype: ['+', id] as const, p: 0.5 },
      ],
    })),
  }));
}

export function hatchling(number: string, more: Partial<HatchlingView> = {}): HatchlingView {
  return {
    id: `id-${number}`,
    number,
    name: null,
    sex: 'unknown',
    hatchedOn: '2026-08-01',
    status: 'undecided',
    label: 'Not identified',
    identified: false,
    massG: null,
    weighedOn: null,
    tub: null,
    published: false,
    pictureId: null,
    clutchId: 'c',
    version: 1,
    records: [],
    impossible: [],
    sires: [{ id: 's', number: 'M-1', p: 1 }],
    pictureIds: [],
    observations: {},
    observationsVersion: 0,
    hypotheses: halfOf('pastel', 'spotnose'),
    opinions: [],
    printedLabel: null,
    isTwin: false,
    sexDoubts: [],
    ...more,
  };
}

/** A clutch of a Pastel female and a Spotnose male on the table. */
export function benchView(hatchlings: HatchlingView[], more: Partial<BenchView> = {}): BenchView {
  const parent = (role: 'dam' | 'sire', id: string, number: string, label: string) => ({
    role,
    id,
    number,
    name: null,
    sex: role === 'dam' ? ('female' as const) : ('male' as const),
    label,
    p: 1,
    parents: [],
    pictureIds: [],
    news: [],
  });
  return {
    clutch: {
      id: 'c',
      name: '2601',
      laidOn: '2026-06-01',
      eggs: 4,
      slugs: 0,
      hatchedOn: '2026-08-01',
      hatched: hatchlings.length,
      identified: 0,
      day: 61,
      incubationC: 31.4,
      note: null,
      version: 1,
    },
    dam: parent('dam', 'd', 'F-1', 'Pastel'),
    sires: [parent('sire', 's', 'M-1', 'Spotnose')],
    outcomes: visibleOutcomes(
      parseParent('Spotnose', 'male').parent,
      parseParent('Pastel', 'female').parent,
      20,
    ),
    cautions: [],
    hatchlings,
    fit: null,
    groups: [],
    sortingVersion: 0,
    comparisons: [],
    conflicts: [],
    leftOut: [],
    cardPictureIds: [],
    links: [],
    nextNumbers: [],
    ...more,
  };
}
