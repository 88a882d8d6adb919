import { readingTests } from './readers.ts';

readingTests({ writers: 4, reads: 120 });
