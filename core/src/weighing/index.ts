export { GRAMS_PER_UNIT } from './mass-units.ts';
export {
  parseScaleLine,
  SteadyMass,
  weightDoubt,
  type ScaleReading,
  type WeightDoubt,
  type WeightDoubts,
} from './scale.ts';
