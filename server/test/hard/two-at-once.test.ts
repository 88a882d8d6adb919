import { describe } from 'vitest';
import { raceTests } from '../races.ts';

describe('two people at once, many times', () => raceTests(50));
