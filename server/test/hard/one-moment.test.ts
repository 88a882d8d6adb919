import { readingTests } from '../readers.ts';

readingTests({ writers: 8, reads: 500 });
