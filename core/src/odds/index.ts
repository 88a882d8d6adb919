export { gamete, livingOutcomes, livingShare, locusOutcomes } from './locus-outcomes.ts';
export {
  pairingCautions,
  pairingOutcomes,
  visibleOutcomes,
  whyImpossible,
  type Impossible,
  type Outcome,
  type VisibleOutcome,
} from './pairing-odds.ts';
export { parseParent, POSSIBLE_HET, possibleChance, toParent, type Parent } from './parent.ts';
export {
  chanceOfTarget,
  hatchedScenarios,
  meetsTarget,
  targetOdds,
  targetScenarios,
  toTarget,
  type Scenario,
  type Target,
  type TargetOdds,
} from './target.ts';
