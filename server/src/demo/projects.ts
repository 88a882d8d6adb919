import { CATALOGUE, seasonOf, SEASON_RULES, type RouteStep } from '@karyotome/core';
import { addProjectAnimal, createProject, planPairing } from '../domain/projects/projects.service.ts';
import type { Actor, Work } from '../db/work.ts';

interface Cast {
  /** By number. */
  readonly idOf: (number: string) => string;
  /** A son of the first pair that shows the gene. */
  readonly heldBack: string;
}

/** Two projects that both want the same male. */
export async function playProjects(work: Work<Actor>, { idOf, heldBack }: Cast): Promise<void> {
  const owned = (number: string) => ({ kind: 'owned' as const, animalId: idOf(number) });
  const first: RouteStep = {
    dam: owned('F-01'),
    sire: owned('M-02'),
    keep: { sex: 'male', phenotype: { ultramel: 'ultramel/ultramel', fire: '' }, label: 'Ultramel' },
    perEgg: 1 / 4,
    inbreeding: 0,
  };
  const last: RouteStep = {
    dam: owned('F-05'),
    sire: { kind: 'held-back', step: 0 },
    keep: null,
    perEgg: 1 / 8,
    inbreeding: 0,
  };
  const { id } = await createProject(work, {
    name: 'Vanilla Ultramel',
    targets: ['Vanilla Ultramel'],
    note: 'A son of Juniper and Rook that shows Ultramel goes to Quince.',
    plan: {
      target: 'Vanilla Ultramel',
      holdBack: 2,
      bought: null,
      route: { steps: [first, last], roughYears: 4.5 },
    },
  });
  await addProjectAnimal(work, id, {
    animalId: heldBack,
    reason: 'The brightest of his clutch, and he never missed a meal.',
    step: 0,
  });
  await playSecond(work, { idOf, heldBack });
}

/** It wants the same male, for the season that runs. */
async function playSecond(work: Work<Actor>, { idOf, heldBack }: Cast): Promise<void> {
  const owned = (animalId: string) => ({ kind: 'owned' as const, animalId });
  // Mocha stands at a locus with others.
  const locus = CATALOGUE.alleleById('mocha')!.locus.id;
  const steps: RouteStep[] = [
    {
      dam: owned(idOf('F-04')),
      sire: owned(heldBack),
      keep: { sex: 'male', phenotype: { [locus]: 'mocha', ultramel: '' }, label: 'Mocha 100% het Ultramel' },
      perEgg: 1 / 4,
      inbreeding: 0,
    },
    {
      dam: owned(idOf('F-01')),
      sire: { kind: 'held-back', step: 0 },
      keep: null,
      perEgg: 1 / 8,
      inbreeding: 1 / 8,
    },
  ];
  const { id } = await createProject(work, {
    name: 'Mocha Ultramel',
    targets: ['Mocha Ultramel'],
    plan: { target: 'Mocha Ultramel', holdBack: 2, bought: null, route: { steps, roughYears: 4.5 } },
  });
  const season = seasonOf(work.today, SEASON_RULES);
  await planPairing(work, id, { season, damId: idOf('F-04'), sireId: heldBack });
}
