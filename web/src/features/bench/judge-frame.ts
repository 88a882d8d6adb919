/** What a frame of the camera is like, as far as numbers tell. */
export interface FrameJudgement {
  /** Variance of the Laplacian over the square of the mean brightness: larger is sharper, of the same things seen. */
  readonly sharpness: number;
  /** Mean brightness, 0 to 255. */
  readonly mean: number;
  /** Share of pixels that are as bright, or as dark, as can be: nothing can be told there. */
  readonly tooBright: number;
  readonly tooDark: number;
}

export type FrameProblem = 'blurred' | 'too-dark' | 'too-bright';

const WHITE_FROM = 250;
const BLACK_TO = 6;
/** Thresholds of common practice, no source. */
const MOST_BLOWN_OUT = 0.12;
const MOST_BLACK = 0.4;
const LEAST_MEAN = 45;
/** A frame is blurred where a moment before one was so much sharper. */
const SHARP_SHARE = 0.6;

/**
 * How sharp and how well exposed a frame is: the variance of the Laplacian (Pech-Pacheco et al. 2000, ICPR 15, 314-317), over
 * the square of the mean brightness so that light does not count as sharpness.
 *
 * @param pixels - RGBA, row by row
 */
export function judgeFrame({
  data,
  width,
  height,
}: Pick<ImageData, 'data' | 'width' | 'height'>): FrameJudgement {
  const grey = new Float64Array(width * height);
  let [sum, bright, dark] = [0, 0, 0];
  for (let i = 0; i < grey.length; i++) {
    // Rec. 601 luma.
    const value = 0.299 * data[4 * i]! + 0.587 * data[4 * i + 1]! + 0.114 * data[4 * i + 2]!;
    grey[i] = value;
    sum += value;
    if (value >= WHITE_FROM) bright++;
    if (value <= BLACK_TO) dark++;
  }
  const mean = sum / grey.length;
  let [edges, edgeSquares, count] = [0, 0, 0];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      const laplacian = grey[at - 1]! + grey[at + 1]! + grey[at - width]! + grey[at + width]! - 4 * grey[at]!;
      edges += laplacian;
      edgeSquares += laplacian * laplacian;
      count++;
    }
  }
  const edgeVariance = count > 0 ? edgeSquares / count - (edges / count) ** 2 : 0;
  return {
    sharpness: mean > 1 ? edgeVariance / mean ** 2 : 0,
    mean,
    tooBright: bright / grey.length,
    tooDark: dark / grey.length,
  };
}

/**
 * What is wrong with a frame.
 *
 * @param sharpest - of the frames just before it: whether it is blurred depends on what there is to see
 */
export function problemsOf(frame: FrameJudgement, sharpest: number): FrameProblem[] {
  return [
    ...(frame.sharpness < SHARP_SHARE * sharpest ? (['blurred'] as const) : []),
    ...(frame.tooBright > MOST_BLOWN_OUT ? (['too-bright'] as const) : []),
    ...(frame.mean < LEAST_MEAN || frame.tooDark > MOST_BLACK ? (['too-dark'] as const) : []),
  ];
}

export const PROBLEM_WORDS: Readonly<Record<FrameProblem, string>> = {
  blurred: 'blurred',
  'too-bright': 'too bright: parts of it are white',
  'too-dark': 'too dark',
};
