import { InputError, type Issue } from '../errors.ts';
import { shareAmongLooks } from './looks.ts';
import type { Genotype, WeightedGenotype } from '../loci/genotype.ts';
import { MOST_ALLELES, WILD } from '../loci/locus.ts';
import {
  UNRECORDED_FREQUENCY,
  type Call,
  type CandidateSire,
  type Pedigree,
  type PedigreeAnimal,
  type PedigreeLocus,
} from './document.ts';
import { ancestorsFirst, parentsOf } from './index-pedigree.ts';
import { isFields, isWithin } from './json-values.ts';

export const PEDIGREE_FORMAT = 'karyotome-pedigree/1';

const SUM_TOLERANCE = 1e-6;

/**
 * Reads a pedigree document: whatever JSON held, checked through and through.
 *
 * @throws InputError with every issue found, in the order of the document; a path reads `animals.H1.dam`
 * @example parsePedigree({}) // throws InputError
 */
export function parsePedigree(document: unknown): Pedigree {
  return new DocumentReader().read(document);
}

class DocumentReader {
  private readonly issues: Issue[] = [];
  private readonly loci = new Map<string, PedigreeLocus>();
  private readonly perLook = new Set<Call>();

  read(document: unknown): Pedigree {
    if (!isFields(document)) throw refusal('document', 'must be an object');
    if (document['format'] !== PEDIGREE_FORMAT) {
      throw refusal('format', `must be "${PEDIGREE_FORMAT}"`);
    }
    const loci = this.list(document['loci'], 'loci').map((entry, i) => this.locus(entry, i));
    const unrecorded = this.unrecorded(document['assume']);
    const entries = this.list(document['animals'], 'animals');
    const seen = new Set<string>();
    const animals = entries.map((entry, i) => this.animal(entry, i, seen));
    if (this.issues.length === 0) this.ties(animals);
    if (this.issues.length > 0) throw new InputError(this.issues);
    return { loci, unrecorded, animals: shareAmongLooks(loci, animals, this.perLook) };
  }

  private issue(code: string, path: string, message: string): void {
    this.issues.push({ code, path, message });
  }

  private list(value: unknown, path: string): readonly unknown[] {
    if (Array.isArray(value)) return value;
    this.issue('type', path, value === undefined ? 'is missing' : 'must be a list');
    return [];
  }

  private locus(entry: unknown, i: number): PedigreeLocus {
    const fields = isFields(entry) ? entry : {};
    const id = this.id(fields['id'], `loci.${i}.id`);
    const path = `loci.${id || i}`;
    if (this.loci.has(id)) this.issue('duplicate', `${path}.id`, 'is used twice');
    const alleles: string[] = [];
    for (const allele of this.list(fields['alleles'], `${path}.alleles`)) {
      if (typeof allele !== 'string' || allele === '')
        this.issue('type', `${path}.alleles`, 'must hold non-empty texts');
      else if (allele === WILD) this.issue('duplicate', `${path}.alleles`, 'must not list the wild type "+"');
      else if (alleles.includes(allele))
        this.issue('duplicate', `${path}.alleles`, `lists "${allele}" twice`);
      else alleles.push(allele);
    }
    if (alleles.length > MOST_ALLELES)
      this.issue('range', `${path}.alleles`, `must list at most ${MOST_ALLELES}`);
    const linked = fields['sexLinked'] ?? false;
    if (typeof linked !== 'boolean') this.issue('type', `${path}.sexLinked`, 'must be true or false');
    const r = fields['recombination'];
    if (linked === true && !isWithin(r, 0, 0.5)) {
      this.issue(
        'range',
        `${path}.recombination`,
        r === undefined ? 'is missing' : 'must lie within 0 to 0.5',
      );
    }
    const locus: PedigreeLocus = {
      id,
      alleles,
      ...(linked === true ? { sexLinked: true, recombination: r as number } : {}),
    };
    this.loci.set(id, locus);
    return locus;
  }

  private unrecorded(assume: unknown): number {
    const path = 'assume.unrecorded';
    if (assume === undefined) return this.fitting(UNRECORDED_FREQUENCY, path);
    if (!isFields(assume)) {
      this.issue('type', 'assume', 'must be an object');
      return UNRECORDED_FREQUENCY;
    }
    const value = assume['unrecorded'];
    if (value === undefined) return this.fitting(UNRECORDED_FREQUENCY, path);
    if (!isWithin(value, 0, 1)) {
      this.issue('range', path, 'must be a probability');
      return UNRECORDED_FREQUENCY;
    }
    return this.fitting(value, path);
  }

  /** Of each listed allele so much: together they leave the wild type at least nothing. */
  private fitting(value: number, path: string): number {
    for (const { id, alleles } of this.loci.values()) {
      if (alleles.length * value > 1 + SUM_TOLERANCE) {
        this.issue('range', path, `times the number of alleles of ${id} must be at most 1`);
      }
    }
    return value;
  }

  private animal(entry: unknown, i: number, seen: Set<string>): PedigreeAnimal {
    if (!isFields(entry)) {
      this.issue('type', `animals.${i}`, 'must be an object');
      return { id: '', sex: 'unknown' };
    }
    const id = this.id(entry['id'], `animals.${i}.id`);
    const path = `animals.${id || i}`;
    if (seen.has(id)) this.issue('duplicate', `${path}.id`, 'is used twice');
    seen.add(id);
    const sex = this.sex(entry['sex'] ?? 'unknown', path);
    const dam = this.dam(entry['dam'] ?? undefined, path);
    const sires = entry['sires'] === undefined ? [] : this.sires(entry['sires'], path);
    if (entry['founder'] !== undefined && (dam !== undefined || sires.length > 0)) {
      this.issue('founder', `${path}.founder`, 'is refused on an animal with a recorded parent');
    }
    const founder = entry['founder'] === undefined ? undefined : this.founder(entry['founder'], path);
    const calls = entry['calls'] === undefined ? [] : this.calls(entry['calls'], path);
    return {
      id,
      sex,
      ...(dam === undefined ? {} : { dam }),
      ...(sires.length > 0 ? { sires } : {}),
      ...(founder ? { founder } : {}),
      ...(calls.length > 0 ? { calls } : {}),
    };
  }

  private sex(value: unknown, path: string): PedigreeAnimal['sex'] {
    if (value === 'female' || value === 'male' || value === 'unknown') return value;
    this.issue('type', `${path}.sex`, 'must be female, male or unknown');
    return 'unknown';
  }

  private dam(value: unknown, path: string): string | undefined {
    if (value === undefined || (typeof value === 'string' && value !== '')) return value;
    this.issue('type', `${path}.dam`, 'must be an id');
    return '';
  }

  private id(value: unknown, path: string): string {
    if (typeof value === 'string' && value !== '') return value;
    this.issue('type', path, value === undefined ? 'is missing' : 'must be a non-empty text');
    return '';
  }

  private sires(value: unknown, path: string): CandidateSire[] {
    const found: CandidateSire[] = [];
    this.list(value, `${path}.sires`).forEach((entry, k) => {
      const at = `${path}.sires.${k}`;
      if (!isFields(entry)) return this.issue('type', at, 'must be an object');
      const id = this.id(entry['id'], `${at}.id`);
      const weight = entry['weight'] ?? 1;
      if (typeof weight !== 'number' || !Number.isFinite(weight) || weight <= 0) {
        return this.issue('range', `${at}.weight`, 'must be a number above 0');
      }
      if (found.some((other) => other.id === id))
        return this.issue('duplicate', `${at}.id`, `names ${id} twice`);
      found.push({ id, weight });
    });
    return found;
  }

  private founder(value: unknown, path: string): Record<string, WeightedGenotype[]> {
    if (!isFields(value)) {
      this.issue('type', `${path}.founder`, 'must be an object');
      return {};
    }
    return Object.fromEntries(
      Object.entries(value).map(([id, entries]) => {
        const at = `${path}.founder.${id}`;
        const locus = this.loci.get(id);
        if (!locus) this.issue('reference', at, 'names a locus that is not in the document');
        const list: WeightedGenotype[] = [];
        for (const entry of this.list(entries, at)) {
          const fields = isFields(entry) ? entry : {};
          const genotype = this.genotype(fields['genotype'], locus, at);
          const p = fields['p'];
          if (!isWithin(p, 0, 1)) this.issue('range', at, 'must give each genotype a probability p');
          else if (genotype) list.push({ genotype, p });
        }
        const sum = list.reduce((total, { p }) => total + p, 0);
        if (Math.abs(sum - 1) > SUM_TOLERANCE)
          this.issue('sum', at, `must add up to 1, but adds up to ${sum}`);
        return [id, list];
      }),
    );
  }

  private genotype(value: unknown, locus: PedigreeLocus | undefined, path: string): Genotype | null {
    if (!Array.isArray(value) || value.length !== 2 || !value.every((allele) => typeof allele === 'string')) {
      this.issue('type', path, 'must give each genotype as a pair of alleles');
      return null;
    }
    for (const allele of value) {
      if (allele !== WILD && locus && !locus.alleles.includes(allele)) {
        this.issue('reference', path, `names "${allele}", which ${locus.id} does not list`);
        return null;
      }
    }
    return [value[0]!, value[1]!];
  }

  private calls(value: unknown, path: string): Call[] {
    return this.list(value, `${path}.calls`).flatMap((entry, k): Call[] => {
      const at = `${path}.calls.${k}`;
      const fields = isFields(entry) ? entry : {};
      const locus = this.loci.get(fields['locus'] as string);
      if (!locus) {
        this.issue('reference', `${at}.locus`, 'names a locus that is not in the document');
        return [];
      }
      const pairs = this.list(fields['is'], `${at}.is`);
      if (Array.isArray(fields['is']) && pairs.length === 0) {
        this.issue('range', `${at}.is`, 'must name at least one genotype');
      }
      const is = pairs.map((pair) => this.genotype(pair, locus, `${at}.is`)).filter((pair) => pair !== null);
      const error = fields['error'] ?? 0;
      if (typeof error !== 'number' || !(error >= 0 && error < 1)) {
        this.issue('range', `${at}.error`, 'must be 0 or more and below 1');
        return [];
      }
      const perLook = fields['perLook'] ?? false;
      if (typeof perLook !== 'boolean') this.issue('type', `${at}.perLook`, 'must be true or false');
      const call: Call = { locus: locus.id, is, error };
      if (perLook === true) this.perLook.add(call);
      return [call];
    });
  }

  /** Parents exist and are of the right sex, and nobody descends from itself. */
  private ties(animals: readonly PedigreeAnimal[]): void {
    const place = new Map(animals.map((animal, i) => [animal.id, i]));
    const role = new Map<string, 'female' | 'male'>();
    const parent = (child: string, field: string, id: string, needed: 'female' | 'male'): void => {
      const at = place.get(id);
      const path = `animals.${child}.${field}`;
      if (at === undefined) return this.issue('reference', path, `names ${id}, which is not in the document`);
      const known = animals[at]!.sex === 'unknown' ? role.get(id) : animals[at]!.sex;
      if (known && known !== needed) {
        return this.issue('sex', path, `names ${id}, which is ${known}`);
      }
      role.set(id, needed);
    };
    for (const animal of animals) {
      if (animal.dam !== undefined) parent(animal.id, 'dam', animal.dam, 'female');
      for (const sire of animal.sires ?? []) parent(animal.id, 'sires', sire.id, 'male');
    }
    if (this.issues.length > 0) return;
    const placed = new Set(ancestorsFirst(animals, place));
    const circular = animals.find((animal, i) => !placed.has(i) && isOwnAncestor(animals, place, i));
    if (circular) {
      const field = circular.dam !== undefined && !placed.has(place.get(circular.dam)!) ? 'dam' : 'sires';
      this.issue('ancestry', `animals.${circular.id}.${field}`, 'makes it its own ancestor');
    }
  }
}

function isOwnAncestor(
  animals: readonly PedigreeAnimal[],
  place: ReadonlyMap<string, number>,
  start: number,
): boolean {
  const seen = new Set<number>();
  const queue = parentsOf(animals[start]!).map((id) => place.get(id)!);
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    if (at === start) return true;
    if (seen.has(at)) continue;
    seen.add(at);
    queue.push(...parentsOf(animals[at]!).map((id) => place.get(id)!));
  }
  return false;
}

function refusal(path: string, message: string): InputError {
  return new InputError([{ code: 'format', path, message }]);
}
