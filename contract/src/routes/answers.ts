/* What writes answer, where there is no more to say. */

export interface Created {
  id: string;
}
/** The new version of what was changed. */
export interface Changed {
  version: number;
}
export interface Many {
  ids: string[];
}
