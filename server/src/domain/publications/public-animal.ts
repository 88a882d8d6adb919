import type { AncestorShown, PublicAnimal, PublicKin } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { pictureViews, recordViews } from '../animals/animals.repository.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { shownPictures } from '../pictures/shown-pictures.ts';
import { offerOf } from '../sales/offers.service.ts';
import type { ShownClaim, ShownClaims, ShownKin } from '../statements/shown-claims.ts';
import { statementsOf, subjectOf, type IssuedRow } from '../statements/statements.queries.ts';
import { statementLine } from '../statements/statements.service.ts';
import { Refusal } from '../../refusal.ts';
import { publicRecords, standing } from './public-records.ts';

type Ancestors = Readonly<Record<string, AncestorShown>>;

/**
 * What a buyer sees. Built field by field from what was signed and from dated records, so that nothing private can slip
 * through: who identified an animal has not agreed to be published, and is in no field of it. Nothing here is inferred.
 */
export async function toPublic(work: Work, animalId: string, publishedAt: string): Promise<PublicAnimal> {
  const animal = await findAnimal(work, animalId);
  const statements = await statementsOf(work, { animalId });
  const [newest] = statements;
  if (!newest) throw new Refusal('not-found', 'Nothing is signed of this animal yet.');
  const shown = newest.shown ?? shownFromDocument(newest);
  const offer = await offerOf(work, animalId);
  const collection = await collectionOf(work);
  const records = standing(await recordViews(work, [animalId]));
  const sexed = records.findLast((record) => record.kind === 'sex');
  return {
    format: 'karyotome-public-animal/1',
    collection: collection.name,
    units: { massUnit: collection.massUnit, temperatureUnit: collection.temperatureUnit },
    number: animal.number,
    name: animal.name,
    label: shown.label,
    sex: animal.sex,
    sexing: sexed?.kind === 'sex' ? { method: sexed.body.method, sure: sexed.body.sure } : null,
    hatchedOn: animal.hatchedOn,
    text: offer.text,
    status: animal.status,
    price: offer.price,
    currency: offer.currency,
    asOf: newest.asOf,
    publishedAt,
    ...publicRecords(records),
    lineage: shown.lineage.map((kin) => toPublicKin(kin, offer.ancestors)),
    claims: shown.claims.map((claim) => toPublicClaim(claim, offer.ancestors)),
    cautions: [...(subjectOf(newest).cautions ?? [])],
    pictures: shownPictures(await pictureViews(work, animalId), offer.pictureIds),
    statements: statements.map(statementLine),
  };
}

/** An ancestor as the breeder shows it: by number, where nothing else was said. */
function toPublicKin(
  { id, role, number, name, label, p, parents }: ShownKin,
  ancestors: Ancestors,
): PublicKin {
  const shown = ancestors[id] ?? 'number';
  return {
    role,
    number: shown === 'hidden' ? null : number,
    name: shown === 'named' ? name : null,
    label: shown === 'hidden' ? null : label,
    p,
    parents: parents.map((parent) => toPublicKin(parent, ancestors)),
  };
}

function toPublicClaim(
  { label, kind, p, certain, rule, support, surer }: ShownClaim,
  ancestors: Ancestors,
): PublicAnimal['claims'][number] {
  const numberOf = (id: string, number: string): string | null =>
    ancestors[id] === 'hidden' ? null : number;
  return {
    label,
    kind,
    p,
    certain,
    rule,
    support:
      support?.map(({ animalId, number, on, label: seen, sure, eye = 'own' }) => ({
        animal: numberOf(animalId, number),
        on,
        label: seen,
        sure,
        eye,
      })) ?? null,
    surer: surer && { kind: surer.kind, number: numberOf(surer.animalId, surer.number) },
  };
}

/** Of a statement that was signed before what pages show was kept with it: what the document itself says. */
function shownFromDocument(row: IssuedRow): ShownClaims {
  const { claims } = subjectOf(row);
  return {
    label: claims.map(({ words }) => words).join(' '),
    claims: claims.map(({ locus, words, kind, p }) => ({
      locus,
      label: words,
      kind,
      p,
      certain: p === 1,
      rule: 'whole-family',
      support: null,
      surer: null,
    })),
    lineage: [],
  };
}
