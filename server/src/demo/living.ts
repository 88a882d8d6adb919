/** An animal of the demo farm that lives there, as its stories need it. */
export interface Living {
  readonly id: string;
  readonly number: string;
  readonly hatchedOn: string | null;
  readonly tubId: string | null;
  /** In grams, as last weighed. */
  readonly massG: number;
}
