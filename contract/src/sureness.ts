import type { Sureness } from '@karyotome/core';

export const SURENESSES = ['certain', 'probable', 'possible'] as const satisfies readonly Sureness[];
