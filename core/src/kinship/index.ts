export { KinshipTable } from './kinship.ts';
