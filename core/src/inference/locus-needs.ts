import type { Factor } from './factor.ts';
import { primitives, type Blocks } from './marginals.ts';
import type { LocusModel, Need } from './model.ts';

/** What the readings of one locus need of the sums. */
export class LocusNeeds {
  /** What readings need beyond the marginal of one factor. */
  readonly joints: readonly Need[];
  /** Beside the model's readings. */
  private readonly needs: readonly (readonly Need[])[];
  private readonly model: LocusModel;

  constructor(model: LocusModel) {
    this.model = model;
    const blocks = this.blocks(noTie);
    this.needs = model.readings.map(({ needs }) =>
      model.derived.size === 0 ? needs : needs.flatMap((need) => primitives(need, blocks)),
    );
    const joints: Need[] = [];
    for (const needs of this.needs) for (const need of needs) if (need.length > 1) joints.push(need);
    this.joints = joints;
  }

  /** What the blocks of needs stand for. @param tie - the prior of an open sire or sex */
  blocks(tie: (variable: number) => Factor): Blocks {
    const { factors, owns, derived } = this.model;
    return {
      factorOf: (block) => {
        if ('tie' in block) return tie(block.tie);
        return factors['own' in block ? owns.get(block.own)! : block.factor]!;
      },
      derivedOf: (block) => ('own' in block ? derived.get(block.own) : undefined),
    };
  }

  /** What a reading needs, without derived blocks. */
  of(reading: number): readonly Need[] {
    return this.needs[reading]!;
  }

  /** Whether a reading needs any of these factors. */
  touches(reading: number, factors: ReadonlySet<Factor>, { factorOf }: Blocks): boolean {
    return this.of(reading).some((need) => need.some((block) => factors.has(factorOf(block))));
  }

  /** The open sires and sexes that tables or readings speak of. */
  ties(): Set<number> {
    const found = new Set<number>();
    for (const { scope } of this.model.factors) for (const v of scope) if (v < 0) found.add(v);
    for (const need of this.joints) for (const block of need) if ('tie' in block) found.add(block.tie);
    return found;
  }
}

function noTie(): never {
  throw new Error('Which blocks are derived does not depend on ties.');
}
