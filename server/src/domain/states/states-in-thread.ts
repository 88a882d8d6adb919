import { appetiteBaseline, fitCollection, type FeedingRules } from '@karyotome/core';
import { computeState, toKeptAnimal, type ComputedState, type DayBasis } from './compute-state.ts';
import type { KeptRow } from './kept-animals.queries.ts';
import { statesToText } from './states-text.ts';
import type { HerdFit } from './stored-fit.ts';

/** What growth and appetite are fitted to. */
export interface FitInput {
  readonly rows: readonly KeptRow[];
  readonly rules: FeedingRules;
  readonly today: string;
}

/** What states are computed from. */
export interface StatesInput {
  readonly rows: readonly KeptRow[];
  readonly basis: DayBasis;
}

declare module '../../threads/pool.ts' {
  interface Tasks {
    /** Fits what a collection's animals have in common. */
    'fit-herd': (input: FitInput) => HerdFit;
    /** Computes states. */
    'compute-states': (input: StatesInput) => ComputedState[];
    /** The same as the text that is stored: many are handed over faster as one text. */
    'states-as-text': (input: StatesInput) => string;
  }
}

const NO_LADDERS: DayBasis['ladders'] = new Map();

export function fitHerd({ rows, rules, today }: FitInput): HerdFit {
  const animals = rows.map((row) => toKeptAnimal(row, NO_LADDERS, today));
  return { growth: fitCollection(animals), appetite: appetiteBaseline(animals, rules) };
}

export const statesAsText = (input: StatesInput): string => statesToText(computeStates(input));

export const computeStates = ({ rows, basis }: StatesInput): ComputedState[] =>
  rows.map((row) => computeState(row, basis));
