/**
 * A level that drifts and wanders, seen through noise at irregular times. The rate of drift returns to zero with a
 * half-life; with no variance of the rate this is the local level model.
 *
 * Source: Durbin & Koopman 2012, Time Series Analysis by State Space Methods, 2nd ed., chapters 2 and 4; the exact steps of
 * an integrated Ornstein-Uhlenbeck rate follow from its covariance (Taylor, Cumberland & Sy 1994, JASA 89, 727-736).
 */
export interface Dynamics {
  /** Variance that the level gains in a unit of time. */
  readonly levelVariance: number;
  /** Standing variance of the rate, per unit of time squared. */
  readonly rateVariance: number;
  /** Time in which half of a rate is forgotten. */
  readonly rateHalfLife: number;
}

export interface State {
  readonly level: number;
  readonly rate: number;
  /** Variances and covariance of the two. */
  readonly vLevel: number;
  readonly vRate: number;
  readonly cov: number;
}

/** A state carried forward by a span of time; `shift` and `shiftVariance` are known jumps of the level in it. */
export function predict(state: State, span: number, dynamics: Dynamics, shift = 0, shiftVariance = 0): State {
  const { levelVariance, rateVariance, rateHalfLife } = dynamics;
  if (rateVariance === 0) {
    return {
      ...state,
      level: state.level + shift,
      vLevel: state.vLevel + levelVariance * span + shiftVariance,
    };
  }
  const theta = Math.LN2 / rateHalfLife;
  const kept = Math.exp(-theta * span);
  const reach = (1 - kept) / theta;
  // Of an Ornstein-Uhlenbeck rate with standing variance V: what the span adds to each variance.
  const addRate = rateVariance * (1 - kept * kept);
  const addCov = (rateVariance / theta) * (1 - kept) ** 2;
  const addLevel = ((2 * rateVariance) / theta) * (span - 2 * reach + (1 - kept * kept) / (2 * theta));
  return {
    level: state.level + reach * state.rate + shift,
    rate: kept * state.rate,
    vLevel:
      state.vLevel +
      2 * reach * state.cov +
      reach * reach * state.vRate +
      addLevel +
      levelVariance * span +
      shiftVariance,
    cov: kept * (state.cov + reach * state.vRate) + addCov,
    vRate: kept * kept * state.vRate + addRate,
  };
}

export interface Step {
  /** The state with the observation taken in. */
  readonly state: State;
  /** Observed less expected. */
  readonly innovation: number;
  /** Variance of what was expected, noise included. */
  readonly variance: number;
  readonly logLikelihood: number;
}

/** Takes in one observation of the level with noise of the given variance. */
export function observe(state: State, y: number, noise: number): Step {
  const innovation = y - state.level;
  const variance = state.vLevel + noise;
  const gain = state.vLevel / variance;
  const rateGain = state.cov / variance;
  return {
    state: {
      level: state.level + gain * innovation,
      rate: state.rate + rateGain * innovation,
      vLevel: state.vLevel - gain * state.vLevel,
      cov: state.cov - gain * state.cov,
      vRate: state.vRate - rateGain * state.cov,
    },
    innovation,
    variance,
    logLikelihood: -0.5 * (Math.log(2 * Math.PI * variance) + (innovation * innovation) / variance),
  };
}
