import { ROUTES as R, type PictureEdit } from '@karyotome/contract';
import { call, urlOf } from './call.ts';

/** Pictures of animals and of clutch cards. */
export const pictureApi = {
  addPicture: (id: string, file: File, caption: string, key?: string) =>
    call(R.addPicture, { params: { id }, query: { caption }, file, ...(key ? { key } : {}) }),
  addCardPicture: (id: string, file: File) => call(R.addCardPicture, { params: { id }, file }),
  deletePicture: (id: string) => call(R.deletePicture, { params: { id } }),
  pictureUrl: (id: string) => urlOf(R.picture, { id }),
  /** @param version - another one where the picture was turned or cropped: so that it is asked for anew */
  thumbUrl: (id: string, version = '') =>
    urlOf(R.picture, { id }, { copy: 'thumb', ...(version === '' ? {} : { v: version }) }),
  editPicture: (id: string, body: PictureEdit) => call(R.editPicture, { params: { id }, body }),
  originalUrl: (id: string) => urlOf(R.picture, { id }, { copy: 'original' }),
  grownLooks: (id: string) => call(R.grownLooks, { params: { id } }),
};
