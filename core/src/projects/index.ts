export { luckKind, luckOf, UNUSUAL, type Luck, type LuckPair } from './luck.ts';
export { ownedParents, remainingRoute, type RemainingRoute } from './remaining-route.ts';
export { routePlaces, type RoutePlaces } from './route-places.ts';
export { sharedAnimals, type SharedAnimal } from './shared-animals.ts';
