import { capital, importValueWords } from '@karyotome/words';

/** A choice of a field's values, as a select takes it. */
export const valueChoices = (
  field: string,
  values: readonly string[] = [],
): { value: string; title: string }[] =>
  values.map((value) => ({ value, title: capital(importValueWords(field, value)) }));
