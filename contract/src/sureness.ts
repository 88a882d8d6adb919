import type { Completeness, Sureness } from '@karyotome/core';

export const SURENESSES = ['certain', 'probable', 'possible'] as const satisfies readonly Sureness[];

export const COMPLETENESSES = [
  'all-known',
  'recessives-unknown',
  'nothing-known',
] as const satisfies readonly Completeness[];
