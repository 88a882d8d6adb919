export { eggsUntilSettled, SETTLED_BELOW, type Mate, type Proof } from './eggs-until-settled.ts';
