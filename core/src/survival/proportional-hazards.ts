import type { Duration } from './kaplan-meier.ts';

export interface HazardSubject extends Duration {
  readonly x: readonly number[];
}

export interface HazardFit {
  /** Logarithm of the ratio of hazards for one more of each variable. */
  readonly beta: readonly number[];
  readonly se: readonly number[];
  readonly logLikelihood: number;
}

const MOST_STEPS = 30;

/**
 * What makes it come sooner or later: proportional hazards (Cox 1972, JRSS B 34, 187-220), ties by Breslow's
 * approximation, solved by Newton's method.
 *
 * @returns null where the data does not settle it (nothing came, or a variable parts those that came from the rest)
 * @example fitHazards([]) // null
 */
export function fitHazards(subjects: readonly HazardSubject[]): HazardFit | null {
  const width = subjects[0]?.x.length ?? 0;
  if (width === 0 || !subjects.some(({ came }) => came)) return null;
  let beta = new Array<number>(width).fill(0);
  for (let step = 0; step < MOST_STEPS; step++) {
    const { gradient, information, logLikelihood } = derivatives(subjects, beta);
    const inverse = invert(information);
    if (!inverse) return null;
    const change = inverse.map((row) => row.reduce((sum, value, j) => sum + value * gradient[j]!, 0));
    beta = beta.map((value, i) => value + change[i]!);
    if (beta.some((value) => !Number.isFinite(value) || Math.abs(value) > 50)) return null;
    if (Math.max(...change.map(Math.abs)) < 1e-9) {
      return { beta, se: inverse.map((row, i) => Math.sqrt(row[i]!)), logLikelihood };
    }
  }
  return null;
}

function derivatives(subjects: readonly HazardSubject[], beta: readonly number[]) {
  const width = beta.length;
  const gradient = new Array<number>(width).fill(0);
  const information = beta.map(() => new Array<number>(width).fill(0));
  let logLikelihood = 0;
  const scores = subjects.map(({ x }) => x.reduce((sum, value, i) => sum + value * beta[i]!, 0));
  subjects.forEach((subject, at) => {
    if (!subject.came) return;
    let total = 0;
    const first = new Array<number>(width).fill(0);
    const second = beta.map(() => new Array<number>(width).fill(0));
    subjects.forEach((other, j) => {
      if (other.days < subject.days) return;
      const weight = Math.exp(scores[j]!);
      total += weight;
      other.x.forEach((value, a) => {
        first[a]! += weight * value;
        other.x.forEach((value2, b) => {
          second[a]![b]! += weight * value * value2;
        });
      });
    });
    logLikelihood += scores[at]! - Math.log(total);
    for (let a = 0; a < width; a++) {
      gradient[a]! += subject.x[a]! - first[a]! / total;
      for (let b = 0; b < width; b++) {
        information[a]![b]! += second[a]![b]! / total - (first[a]! * first[b]!) / total ** 2;
      }
    }
  });
  return { gradient, information, logLikelihood };
}

/** The inverse of a small symmetric matrix by elimination; null where it has none. */
function invert(matrix: readonly (readonly number[])[]): number[][] | null {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, j) => Number(i === j))]);
  for (let i = 0; i < n; i++) {
    const pivot = rows
      .slice(i)
      .reduce((best, row, k) => (Math.abs(row[i]!) > Math.abs(rows[best]![i]!) ? i + k : best), i);
    [rows[i], rows[pivot]] = [rows[pivot]!, rows[i]!];
    const lead = rows[i]![i]!;
    if (Math.abs(lead) < 1e-12) return null;
    rows[i] = rows[i]!.map((value) => value / lead);
    for (let k = 0; k < n; k++) {
      if (k === i) continue;
      const factor = rows[k]![i]!;
      rows[k] = rows[k]!.map((value, j) => value - factor * rows[i]![j]!);
    }
  }
  return rows.map((row) => row.slice(n));
}
