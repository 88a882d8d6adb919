import { clutchName } from '@karyotome/core';

/** A clutch's row with its name in the place of its season and its number in it. */
export function withClutchName<Row extends { season: number; ordinal: number }>({
  season,
  ordinal,
  ...row
}: Row): Omit<Row, 'season' | 'ordinal'> & { name: string } {
  return { ...row, name: clutchName(season, ordinal) };
}
