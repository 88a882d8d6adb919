import type { NewAnimal, NewRecord } from '@karyotome/contract';
import type { CatalogueChange } from '@karyotome/core';
import type { Habits } from './propose-plan.ts';

/* What rows of a file are, ready to be written: animals by their number. */

export interface AnimalItem {
  readonly line: number;
  readonly animal: NewAnimal;
  readonly dam: string;
  readonly sire: string;
  /** The day of its weight; null for today. */
  readonly weighedOn: string | null;
}

export interface ParentsItem {
  readonly line: number;
  readonly number: string;
  readonly dam: string;
  readonly sire: string;
}

export interface RecordItem {
  readonly line: number;
  readonly animalId: string;
  readonly record: NewRecord;
}

export interface ClutchItem {
  readonly line: number;
  readonly dam: string;
  readonly sires: readonly string[];
  readonly pairedOn: string | null;
  readonly laidOn: string;
  readonly eggs: number;
  readonly slugs: number | null;
  readonly incubationC: number | null;
  readonly hatchedOn: string | null;
  readonly hatchlings: readonly string[];
  readonly note: string | null;
}

/** Of one kind. Animals and clutches stand in the order in which they can be written. */
export type FileItems =
  | { readonly kind: 'animals'; readonly items: readonly AnimalItem[] }
  | { readonly kind: 'parents'; readonly items: readonly ParentsItem[] }
  | { readonly kind: 'weights' | 'meals' | 'sheds'; readonly items: readonly RecordItem[] }
  | { readonly kind: 'clutches'; readonly items: readonly ClutchItem[] };

/** What is known of the collection a file is to be brought into. */
export interface ImportGround extends Habits {
  readonly entries: readonly CatalogueChange[];
  readonly known: readonly KnownAnimal[];
  /** Numbers that were ever given. */
  readonly used: readonly string[];
  readonly today: string;
}

export interface KnownAnimal {
  readonly id: string;
  readonly number: string;
  readonly sex: string;
  readonly hatchedOn: string | null;
  readonly damId: string | null;
  readonly sireId: string | null;
  readonly clutchId: string | null;
}
