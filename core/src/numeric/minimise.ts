const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** The lowest point of a function of one variable between two ends, where it falls and then rises (golden section). */
export function goldenSection(f: (x: number) => number, from: number, to: number, tolerance = 1e-4): number {
  let [a, b] = [from, to];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fc, fd] = [f(c), f(d)];
  while (b - a > tolerance) {
    if (fc < fd) [b, d, fd, c, fc] = [d, c, fc, NaN, NaN];
    else [a, c, fc, d, fd] = [c, d, fd, NaN, NaN];
    if (Number.isNaN(c)) {
      c = b - GOLDEN * (b - a);
      fc = f(c);
    } else {
      d = a + GOLDEN * (b - a);
      fd = f(d);
    }
  }
  return (a + b) / 2;
}

/**
 * Lowers a smooth function of a few variables one variable at a time, each within its span of the current point, until a
 * round gains less than the tolerance.
 */
export function coordinateDescent(
  f: (x: readonly number[]) => number,
  start: readonly number[],
  span: number,
  { rounds = 20, tolerance = 1e-6 } = {},
): number[] {
  let x = [...start];
  let best = f(x);
  for (let round = 0; round < rounds; round++) {
    const before = best;
    for (let i = 0; i < x.length; i++) {
      const at = (value: number): number[] => x.map((old, j) => (j === i ? value : old));
      const found = goldenSection((value) => f(at(value)), x[i]! - span, x[i]! + span, span * 1e-4);
      const value = f(at(found));
      if (value < best) {
        best = value;
        x = at(found);
      }
    }
    if (before - best < tolerance) break;
  }
  return x;
}
