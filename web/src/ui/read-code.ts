import jsQR from 'jsqr';

/** What a QR code in a picture says; null where there is none. */
export const readCode = (image: Pick<ImageData, 'data' | 'width' | 'height'>): string | null =>
  jsQR(image.data, image.width, image.height)?.data ?? null;
