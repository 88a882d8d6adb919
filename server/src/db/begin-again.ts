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
