import type { DeskLine, DeskView } from '@karyotome/contract';
import { appetite, clutchName, isCertain, isPossible } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { summaries } from '../../domain/animals/animals.repository.ts';
import { parentsOf } from '../../domain/animals/kin.ts';
import { claimsOf } from '../../domain/genetics/inferred-of-animal.ts';
import { namedAnimals } from '../../domain/genetics/genetics.queries.ts';
import { geneticsSoon } from '../../domain/genetics/genetics.service.ts';
import { herdOf } from '../../domain/husbandry/load-herd.ts';
import { saleRulesOf } from '../../domain/sales/sale-rules.ts';
import { lacksOf } from '../../domain/sales/sale-lines.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';

/** A clutch side by side: what each is, how it does, and whether it is ready. */
export async function viewDesk(work: Work, clutchId: string): Promise<DeskView> {
  const clutch = await findClutch(work, clutchId);
  const genetics = await geneticsSoon(work);
  const byId = new Map((await namedAnimals(work)).map((animal) => [animal.id, animal]));
  const mates = await summaries(work, genetics, 'and a.clutch_id = :clutchId', { clutchId });
  const herd = await herdOf(work);
  const { rules } = await saleRulesOf(work);
  const parents = mates[0] ? parentsOf(genetics, byId, mates[0].id, 1) : [];
  const numbersOf = (role: 'dam' | 'sire'): string[] =>
    parents.filter((parent) => parent.role === role).map(({ number }) => number);
  return {
    clutch: {
      id: clutchId,
      name: clutchName(clutch.season, clutch.ordinal),
      dam: numbersOf('dam')[0] ?? '',
      sires: numbersOf('sire'),
    },
    lines: mates.map((animal): DeskLine => {
      const history = herd.animals.get(animal.id)?.history;
      const { inARow = 0, takenEver = 0, offeredEver = 0 } = history ? appetite(history) : {};
      return {
        id: animal.id,
        animal,
        claims: claimsOf(genetics, animal.id).map(({ label, kind, p }) => ({
          label,
          p,
          certain: !isPossible(kind) && isCertain(p),
        })),
        weights: (history?.weights ?? []).map(({ on, massG }) => ({ on, massG })),
        offCurve: history ? (herd.offCurve(animal.id)?.off ?? null) : null,
        appetite: { inARow, takenEver, offeredEver },
        lacks: lacksOf(herd, rules, animal.id),
      };
    }),
  };
}
