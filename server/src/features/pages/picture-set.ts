import type { PictureView } from '@karyotome/contract';
import { h, type VNode } from 'vue';

/** Widths of the copies that pages ask for, pixels. */
export const PICTURE_WIDTHS = [480, 960, 1600] as const;

/** A picture in the sizes that a browser chooses from; its place on the page is kept until it is there. */
export function pictureSet(
  slug: string,
  { id, width, height }: Pick<PictureView, 'id' | 'width' | 'height'>,
  alt: string,
  sizes: string,
  isBelow: boolean,
): VNode {
  const at = (wide: number): string => `/p/${slug}/pictures/${id}/${wide}`;
  return h('img', {
    src: at(PICTURE_WIDTHS[0]),
    srcset: PICTURE_WIDTHS.map((wide) => `${at(wide)} ${wide}w`).join(', '),
    sizes,
    width,
    height,
    alt,
    ...(isBelow ? { loading: 'lazy' } : {}),
    decoding: 'async',
  });
}
