import type { AnimalView, PictureView } from '@karyotome/contract';
import { daysBetween } from '@karyotome/core';

/** From these ages, in days, an animal is called so. Common practice, no source. */
const YEARLING_FROM = 300;
const SUB_ADULT_FROM = 540;
const ADULT_FROM = 900;
/** A weighing this near to a picture tells how large the animal then was. */
const NEAR_DAYS = 30;

export interface DatedPicture {
  readonly picture: PictureView;
  readonly takenOn: string;
  readonly ageDays: number | null;
  readonly stage: string;
  /** Of the weighing nearest to it; null where none was near. */
  readonly massG: number | null;
}

/** An animal's pictures in the order in which they were taken, each with the stage that it shows. */
export function picturesInTime(
  animal: Pick<AnimalView, 'hatchedOn' | 'records' | 'pictures'>,
): DatedPicture[] {
  const standing = animal.records.filter(({ voided }) => voided === null);
  const sheds = standing.flatMap((record) =>
    record.kind === 'shed' && record.body.stage === 'shed' ? [record.on] : [],
  );
  const weights = standing.flatMap((record) =>
    record.kind === 'weight' ? [{ on: record.on, massG: record.body.massG }] : [],
  );
  return animal.pictures
    .flatMap((picture) => (picture.takenOn === null ? [] : [{ picture, takenOn: picture.takenOn }]))
    .toSorted((a, b) => (a.takenOn < b.takenOn ? -1 : 1))
    .map(({ picture, takenOn }) => {
      const ageDays = animal.hatchedOn === null ? null : daysBetween(animal.hatchedOn, takenOn);
      const distance = ({ on }: { on: string }): number => Math.abs(daysBetween(on, takenOn));
      const [nearest] = weights.toSorted((a, b) => distance(a) - distance(b));
      return {
        picture,
        takenOn,
        ageDays,
        stage: stageWords(ageDays, sheds.filter((on) => on <= takenOn).length),
        massG: nearest && distance(nearest) <= NEAR_DAYS ? nearest.massG : null,
      };
    });
}

function stageWords(ageDays: number | null, sheds: number): string {
  if (ageDays === null) return '';
  if (ageDays >= ADULT_FROM) return 'adult';
  if (ageDays >= SUB_ADULT_FROM) return 'sub-adult';
  if (ageDays >= YEARLING_FROM) return 'yearling';
  return sheds === 0 ? 'hatchling' : `after shed ${sheds}`;
}

/**
 * How large pictures are shown beside one another so that the animals stand at one scale: a length grows with the cube root of
 * the weight. Without a weight a picture is as large as the largest.
 */
export function scalesOf(pictures: readonly Pick<DatedPicture, 'massG'>[]): number[] {
  const most = Math.max(0, ...pictures.map(({ massG }) => massG ?? 0));
  return pictures.map(({ massG }) => (massG === null || most === 0 ? 1 : Math.cbrt(massG / most)));
}
