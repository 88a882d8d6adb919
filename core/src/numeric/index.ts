export { shareOf, type Share } from './interval.ts';
export { seededRandom } from './random.ts';
export {
  bellOdds,
  chanceAbove,
  drawWhole,
  givenAtLeast,
  learn,
  meanOf,
  quantile,
  sumOf,
  type Learned,
  type WholeOdds,
} from './whole-odds.ts';
