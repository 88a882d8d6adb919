import jsQR from 'jsqr';

/** The animal that a label's code leads to; null where there is no code, or it is of something else. */
export function readCode(image: Pick<ImageData, 'data' | 'width' | 'height'>): string | null {
  const found = jsQR(image.data, image.width, image.height);
  return found ? animalOf(found.data) : null;
}

/** Labels carry the address of an animal's page. */
export function animalOf(text: string): string | null {
  return /\/animals\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})(?:[/?#]|$)/i.exec(text)?.[1] ?? null;
}
