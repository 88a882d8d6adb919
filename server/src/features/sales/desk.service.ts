import { isGone, type DeskLine, type DeskView } from '@karyotome/contract';
import { clutchName, isCertain, isPossible } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { summaries } from '../../domain/animals/animals.repository.ts';
import { parentsOf } from '../../domain/animals/kin.ts';
import { claimsOf } from '../../domain/genetics/inferred-of-animal.ts';
import { namedAnimals } from '../../domain/genetics/genetics.queries.ts';
import { geneticsSoon } from '../../domain/genetics/genetics.service.ts';
import { statesOf } from '../../domain/states/animal-states.ts';
import { keptAnimalsOf } from '../../domain/states/kept-animals.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';

/** A clutch side by side: what each is, how it does, and whether it is ready. */
export async function viewDesk(work: Work, clutchId: string): Promise<DeskView> {
  const clutch = await findClutch(work, clutchId);
  const genetics = await geneticsSoon(work);
  const byId = new Map((await namedAnimals(work)).map((animal) => [animal.id, animal]));
  const mates = await summaries(work, genetics, 'and a.clutch_id = :clutchId', { clutchId });
  const here = mates.filter((mate) => !isGone(mate)).map(({ id }) => id);
  const states = await statesOf(work, here);
  const kept = await keptAnimalsOf(work, here);
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
      const state = states.get(animal.id);
      const { inARow = 0, takenEver = 0, offeredEver = 0 } = state?.appetite ?? {};
      return {
        id: animal.id,
        animal,
        claims: claimsOf(genetics, animal.id).map(({ label, kind, p }) => ({
          label,
          p,
          certain: !isPossible(kind) && isCertain(p),
        })),
        weights: (kept.get(animal.id)?.weights ?? []).map(({ on, massG }) => ({ on, massG })),
        offCurve: state?.offCurve?.off ?? null,
        appetite: { inARow, takenEver, offeredEver },
        lacks: [...(state?.lacks ?? [])],
      };
    }),
  };
}
