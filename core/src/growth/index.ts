export { fitCollection, OUTLIER_Z, type CollectionGrowth } from './collection.ts';
export { curveByWeek, Growth, percentile, type ExpectedMass, type Outlier, type Reach } from './growth.ts';
export type { GrowthSubject } from './prepare.ts';
