import Joi from 'joi';

/** How a picture is shown: turned, cropped, and with its light evened. The original stays as it came. */
export interface PictureEdit {
  /** Degrees clockwise, of the picture as it stands upright. */
  turn: number;
  /** Of the turned picture with the corners that turning adds, each 0 to 1. */
  crop: { left: number; top: number; width: number; height: number };
  /** Light that comes from one side is taken out of the ground. */
  isEvened: boolean;
}

/** Less than this of a picture shows nothing. */
const LEAST_SHARE = 0.02;
const within = (share: number, total: number): boolean => share + total <= 1 + 1e-6;

export const pictureEdit = Joi.object<PictureEdit, true>({
  turn: Joi.number().min(-360).max(360).required(),
  crop: Joi.object<PictureEdit['crop'], true>({
    left: Joi.number().min(0).max(1).required(),
    top: Joi.number().min(0).max(1).required(),
    width: Joi.number().min(LEAST_SHARE).max(1).required(),
    height: Joi.number().min(LEAST_SHARE).max(1).required(),
  })
    .custom((crop: PictureEdit['crop'], helpers) =>
      within(crop.left, crop.width) && within(crop.top, crop.height)
        ? crop
        : helpers.message({ custom: 'must lie within the picture' }),
    )
    .required(),
  isEvened: Joi.boolean().required(),
});
