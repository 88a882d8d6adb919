import { addDays } from '@karyotome/core';
import { machineToday } from '../src/db/work.ts';

export const TODAY = machineToday();
export const ago = (days: number): string => addDays(TODAY, -days);
