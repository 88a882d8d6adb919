export { fitCollection, OUTLIER_Z, type CollectionGrowth } from './collection.ts';
export {
  COMPARED_AGE_SHARE,
  curveByWeek,
  Growth,
  LEAST_COMPARED_DAYS,
  percentile,
  type Compared,
  type ExpectedMass,
  type Outlier,
  type Reach,
} from './growth.ts';
export type { GrowthSubject } from './prepare.ts';
