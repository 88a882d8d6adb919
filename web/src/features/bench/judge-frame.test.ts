import { describe, expect, test } from 'vitest';
import { judgeFrame, problemsOf } from './judge-frame.ts';

const [WIDTH, HEIGHT] = [80, 60];
function frame(of: (x: number, y: number) => number): Pick<ImageData, 'data' | 'width' | 'height'> {
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const at = (y * WIDTH + x) * 4;
      data.fill(of(x, y), at, at + 3);
      data[at + 3] = 255;
    }
  return { data, width: WIDTH, height: HEIGHT };
}
const stripes = (x: number): number => (Math.floor(x / 4) % 2 === 0 ? 70 : 180);
/** The mean over a window: what a camera that is out of focus does. */
const blurred =
  (radius: number) =>
  (x: number): number => {
    let sum = 0;
    for (let dx = -radius; dx <= radius; dx++) sum += stripes(x + dx + 40);
    return sum / (2 * radius + 1);
  };

describe('a frame of the camera', () => {
  test('the more it is blurred the less sharp it is, and half as sharp as before is blurred', () => {
    const sharp = judgeFrame(frame((x) => stripes(x + 40)));
    const [soft, softer] = [1, 3].map((radius) => judgeFrame(frame(blurred(radius))));
    expect(sharp.sharpness).toBeGreaterThan(soft!.sharpness);
    expect(soft!.sharpness).toBeGreaterThan(softer!.sharpness);
    expect(problemsOf(sharp, sharp.sharpness)).toEqual([]);
    expect(problemsOf(softer!, sharp.sharpness)).toEqual(['blurred']);
  });

  test('light alone does not make it sharper', () => {
    const dim = judgeFrame(frame((x) => stripes(x + 40) / 2));
    expect(dim.sharpness).toBeCloseTo(judgeFrame(frame((x) => stripes(x + 40))).sharpness, 1);
  });

  test('by hand: of single dots the Laplacian is four times the dot, and once at each neighbour', () => {
    // One dot of 200 on 100: the sum of squares is (4² + 4 x 1²) 100², its mean 0, over the inner pixels.
    const { sharpness, mean } = judgeFrame(frame((x, y) => (x === 40 && y === 30 ? 200 : 100)));
    const all = WIDTH * HEIGHT;
    expect(mean).toBeCloseTo(100 + 100 / all, 9);
    expect(sharpness).toBeCloseTo((20 * 100 ** 2) / ((WIDTH - 2) * (HEIGHT - 2)) / mean ** 2, 9);
  });

  test('too dark and too bright are said, a plain ground is no problem', () => {
    expect(problemsOf(judgeFrame(frame(() => 10)), 0)).toEqual(['too-dark']);
    expect(problemsOf(judgeFrame(frame((x) => (x < 20 ? 255 : 120))), 0)).toEqual(['too-bright']);
    expect(problemsOf(judgeFrame(frame(() => 140)), 0)).toEqual([]);
  });
});
