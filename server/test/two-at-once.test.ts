import { describe } from 'vitest';
import { raceTests } from './races.ts';

describe('two people at once', () => raceTests(3));
