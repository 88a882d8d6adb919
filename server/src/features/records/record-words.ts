import type { RecordBodies, RecordKind } from '@karyotome/contract';
import { canonicalLabel, parseGenes, type Catalogue } from '@karyotome/core';

/** A record's body in one line of plain words. */
export function recordWords(kind: RecordKind, body: Record<string, unknown>, catalogue: Catalogue): string {
  switch (kind) {
    case 'identification': {
      const { genes, sure, by } = body as RecordBodies['identification'];
      return `${canonicalLabel(parseGenes(genes, catalogue), catalogue)}, ${sure}, by ${by}`;
    }
    case 'sex': {
      const { sex, method, sure } = body as RecordBodies['sex'];
      return `${sex}, ${method}, ${sure}`;
    }
    case 'weight':
      return `${(body as RecordBodies['weight']).massG} g`;
    case 'feeding': {
      const { species, size, state, taken } = body as RecordBodies['feeding'];
      return `${species} ${size}, ${state}, ${taken ? 'taken' : 'refused'}`;
    }
    case 'shed':
      return `shed sign: ${(body as RecordBodies['shed']).stage}`;
    case 'move':
      return `moved: ${(body as RecordBodies['move']).reason}`;
    case 'note':
      return (body as RecordBodies['note']).text;
  }
}
