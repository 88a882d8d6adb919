import { Refusal } from '../refusal.ts';

/**
 * Thrown within a read or a write that needs something first which takes long, or which a read may not do: what it did is
 * undone, the rest is done meanwhile, and it begins again.
 */
export class BeginAgain extends Error {
  readonly meanwhile: () => Promise<unknown>;

  constructor(meanwhile: () => Promise<unknown> = () => Promise.resolve()) {
    super('This has to begin again.');
    this.name = 'BeginAgain';
    this.meanwhile = meanwhile;
  }
}

/** What began again too often is told as busy: whoever asked may try again. */
export const tooManyBeginnings = (cause: BeginAgain): Refusal =>
  new Refusal('busy', 'The records change too fast for this just now. Try again in a moment.', { cause });
