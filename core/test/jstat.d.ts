/** The parts of the statistics package jstat that the tests hold against. */
declare module 'jstat' {
  interface Discrete {
    pdf(k: number, n: number, p: number): number;
    cdf(k: number, n: number, p: number): number;
  }
  interface Hypergeometric {
    pdf(k: number, population: number, successes: number, draws: number): number;
  }
  interface Normal {
    cdf(x: number, mean: number, sd: number): number;
    inv(p: number, mean: number, sd: number): number;
  }
  const jstat: {
    jStat: { binomial: Discrete; negbin: Discrete; hypgeom: Hypergeometric; normal: Normal };
  };
  export default jstat;
}
