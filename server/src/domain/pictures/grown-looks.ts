import type { GrownLook } from '@karyotome/contract';
import { parseGenes, shownByReading } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { geneticsSoon, type Genetics } from '../genetics/genetics.service.ts';
import { picturesFromAge } from './grown-looks.queries.ts';

/** Its look is that of a grown animal from about this age. Common practice, no source. */
const GROWN_DAYS = 540;
const MOST_LOOKS = 12;

/** What an animal may look like grown: pictures of older ones of the collection that show the same genes. */
export async function grownLooks(work: Work, animalId: string): Promise<GrownLook[]> {
  const genetics = await geneticsSoon(work);
  if (!genetics.recorded.has(animalId)) throw notFound('This animal');
  const look = lookOf(genetics, animalId);
  if (look === null) return [];
  const alike = [...genetics.recorded.keys()].filter(
    (id) => id !== animalId && lookOf(genetics, id) === look,
  );
  const pictures = await picturesFromAge(work, { animalIds: alike, fromDays: GROWN_DAYS });
  return pictures
    .toSorted((a, b) => a.ageDays - b.ageDays)
    .slice(0, MOST_LOOKS)
    .map(({ animalId: id, number, sex, pictureId, isDrawing, ageDays }) => ({
      animal: { id, number, sex },
      pictureId,
      isDrawing,
      ageDays,
    }));
}

/** What shows on an animal as it was identified; null where nobody has. */
function lookOf({ recorded, catalogue }: Genetics, animalId: string): string | null {
  const genes = recorded.get(animalId)?.identification?.genes;
  if (genes === undefined) return null;
  const shown = Object.entries(shownByReading(parseGenes(genes, catalogue), catalogue));
  return JSON.stringify(shown.filter(([, phenotype]) => phenotype !== '').toSorted());
}
