import type { AppetiteBaseline, CollectionGrowth } from '@karyotome/core';

/** What a collection's records say of growth and appetite. */
export interface HerdFit {
  readonly growth: CollectionGrowth;
  readonly appetite: AppetiteBaseline;
}

/** A fit as JSON has it: maps as lists of their entries. */
export interface StoredFit {
  readonly growth: Omit<CollectionGrowth, 'clutches'> & {
    readonly clutches: [string, { readonly off: number; readonly variance: number }][];
  };
  readonly appetite: Omit<AppetiteBaseline, 'cells'> & {
    readonly cells: [string, { readonly taken: number; readonly offered: number }][];
  };
}

export const toStoredFit = ({ growth, appetite }: HerdFit): StoredFit => ({
  growth: { ...growth, clutches: [...growth.clutches] },
  appetite: { ...appetite, cells: [...appetite.cells] },
});

export const fromStoredFit = ({ growth, appetite }: StoredFit): HerdFit => ({
  growth: { ...growth, clutches: new Map(growth.clutches) },
  appetite: { ...appetite, cells: new Map(appetite.cells) },
});
