/** One change of the schema, in SQL. Never edited once merged. */
export interface Migration {
  /** `YYYYMMDDhhmmss-what-it-does`; the order of names is the order of running. */
  readonly name: string;
  readonly up: string;
  readonly down: string;
}
