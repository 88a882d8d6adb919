import type { Sex, Status } from './animal-status.ts';
import type { PictureEdit } from './picture-requests.ts';

export interface AnimalSummary {
  id: string;
  number: string;
  name: string | null;
  sex: Sex;
  hatchedOn: string | null;
  status: Status;
  label: string;
  identified: boolean;
  massG: number | null;
  weighedOn: string | null;
  tub: (TubPlace & { rackId: string }) | null;
  published: boolean;
  pictureId: string | null;
  clutchId: string | null;
  version: number;
}

export interface TubPlace {
  tubId: string;
  room: string;
  rack: string;
  level: number;
  slot: number;
}

export interface ParentView {
  role: 'dam' | 'sire';
  id: string;
  number: string;
  name: string | null;
  sex: Sex;
  label: string;
  /** Below 1 where several sires are possible. */
  p: number;
  parents: ParentView[];
}

export interface PictureView {
  id: string;
  caption: string;
  isDrawing: boolean;
  takenOn: string | null;
  width: number;
  height: number;
  /** How it was turned and cropped; null where it is shown as it came. */
  edit: PictureEdit | null;
}
