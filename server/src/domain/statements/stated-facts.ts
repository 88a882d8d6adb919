import type { StatedFact } from '@karyotome/contract';
import type { StatedPicture, StatementSubject } from '@karyotome/lineage';

type Facts = Pick<StatementSubject, Exclude<StatedFact, 'pictures'>> & {
  readonly pictures?: readonly Pick<StatedPicture, 'file'>[];
};

const FACTS: { readonly [Fact in StatedFact]: (facts: Facts) => unknown } = {
  number: ({ number }) => number,
  name: ({ name }) => name,
  sex: ({ sex }) => sex,
  hatchedOn: ({ hatchedOn }) => hatchedOn,
  cautions: ({ cautions = [] }) => cautions,
  // A file never changes under its name.
  pictures: ({ pictures = [] }) => pictures.map(({ file }) => file),
};

/** What a statement says of the animal besides its claims that is another by now. */
export const changedFacts = (before: Facts, now: Facts): StatedFact[] =>
  (Object.keys(FACTS) as StatedFact[]).filter(
    (fact) => JSON.stringify(FACTS[fact](before)) !== JSON.stringify(FACTS[fact](now)),
  );
