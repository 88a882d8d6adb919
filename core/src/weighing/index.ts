export {
  parseScaleLine,
  SteadyMass,
  weightDoubt,
  type ScaleReading,
  type WeightDoubt,
  type WeightDoubts,
} from './scale.ts';
