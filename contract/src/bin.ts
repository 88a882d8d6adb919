import Joi from 'joi';
import { text } from './fields.ts';

export const BIN_KINDS = ['animal', 'picture', 'pairing', 'rack', 'heat-zone'] as const;
export type BinKind = (typeof BIN_KINDS)[number];

export interface Deletion {
  /** Why, for whoever looks at it later. */
  reason: string;
}

export const deletion = Joi.object<Deletion, true>({ reason: text(300).min(1).required() });

/** Something that was deleted. */
export interface BinEntry {
  id: string;
  kind: BinKind;
  /**
   * The number of the animal, of which a picture is, or which is the female of a pairing; the name of the clutch that a picture
   * is of, of the rack, or of the rack that a heat zone was in.
   */
  number: string;
  /** Of the animal, the caption of the picture, the males of the pairing, the room of the rack, the name of the heat zone. */
  name: string | null;
  /** Nobody is asked for that of a picture. */
  reason: string | null;
  by: string;
  /** RFC 3339. */
  deletedAt: string;
  /** The day on which it is erased, by the farm's calendar. */
  erasedOn: string;
  records: number;
  pictures: number;
}

/** What came back. */
export interface Restored {
  /** Of the animal that came back, or whose picture did; null for anything else. */
  animalId: string | null;
  /** Whether it was left without its place in the racks: that tub is taken, or gone. */
  isWithoutPlace: boolean;
}
