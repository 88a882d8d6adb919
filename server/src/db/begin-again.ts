/**
 * Thrown within a write that needs something first which takes long: what it did is undone, the rest is done meanwhile, and
 * it begins again.
 */
export class BeginAgain extends Error {
  readonly meanwhile: () => Promise<unknown>;

  constructor(meanwhile: () => Promise<unknown> = () => Promise.resolve()) {
    super('The write has to begin again.');
    this.name = 'BeginAgain';
    this.meanwhile = meanwhile;
  }
}
