import type { ParentView, PublicAnimal, PublicKin } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { viewAnimal } from '../../domain/animals/view-animal.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { cautionsOf } from '../../domain/genetics/inferred-of-animal.ts';
import { publicRecords, standing } from './public-records.ts';
import { statementsOf } from '../../domain/statements/statements.queries.ts';
import { statementLine } from '../../domain/statements/statements.service.ts';

const withoutIds = ({ role, number, label, p, parents }: ParentView): PublicKin => ({
  role,
  number,
  label,
  p,
  parents: parents.map(withoutIds),
});

/**
 * What a buyer sees. Built field by field, so that nothing private can slip through: who identified an animal has not agreed
 * to be published, and is in no field of it.
 */
export async function toPublic(work: Work, animalId: string, publishedAt: string): Promise<PublicAnimal> {
  const animal = await viewAnimal(work, animalId, { isPatient: true });
  const genetics = await geneticsOf(work);
  const collection = (await work.models.collections.findByPk(work.actor.collectionId, {
    transaction: work.transaction,
  }))!.get();
  const records = standing(animal.records);
  const sexed = records.findLast((record) => record.kind === 'sex');
  return {
    format: 'karyotome-public-animal/1',
    collection: collection.name,
    units: { massUnit: collection.massUnit, temperatureUnit: collection.temperatureUnit },
    number: animal.number,
    name: animal.name,
    label: animal.label,
    sex: animal.sex,
    sexing: sexed?.kind === 'sex' ? { method: sexed.body.method, sure: sexed.body.sure } : null,
    hatchedOn: animal.hatchedOn,
    text: animal.publication?.text ?? null,
    asOf: work.today,
    publishedAt,
    ...publicRecords(records),
    lineage: animal.parents.map(withoutIds),
    claims: animal.claims.map(({ label, kind, p, certain, rule, support }) => ({
      label,
      kind,
      p,
      certain,
      rule,
      support:
        support?.map(({ animalNumber: number, on, label: seen, sure }) => ({
          animal: number,
          on,
          label: seen,
          sure,
        })) ?? null,
    })),
    cautions: cautionsOf(genetics, animalId),
    pictures: animal.pictures,
    statements: (await statementsOf(work, { animalId })).map(statementLine),
  };
}
