import { GONE } from '@karyotome/contract';

/** SQL: the animal is here, neither sold nor dead nor entered by mistake. @param status - the column, with its alias */
export const livingSql = (status = 'status'): string =>
  `${status} not in (${GONE.map((one) => `'${one}'`).join(', ')})`;
