export { eggsUntilSettled, SETTLED_BELOW, type Mate, type Proof } from './eggs-until-settled.ts';
export { INHERITANCES, LOOKS_BY_CHANCE, type Inheritance } from './inheritance.ts';
export { KNOWN_FROM, POWER, type TestPairing } from './test-pairings.ts';
export { assessUnproven, type UnprovenGene } from './unproven-gene.ts';
