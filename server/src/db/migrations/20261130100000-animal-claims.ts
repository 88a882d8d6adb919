import type { Migration } from '../migration.ts';

/*
 * What is claimed of an animal with the records that each claim rests on, as it was found at a revision of the collection's
 * genetic records. Of another revision it says nothing.
 */
export const animalClaims: Migration = {
  name: '20261130100000-animal-claims',
  up: `
    create table animal_claims (
      collection_id uuid not null,
      animal_id uuid not null,
      revision bigint not null,
      claims jsonb not null,
      primary key (collection_id, animal_id),
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade
    );
  `,
  down: `drop table animal_claims;`,
};
