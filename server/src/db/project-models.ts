import { DataTypes, type Sequelize } from 'sequelize';
import type { PlannedPairingRow, ProjectAnimalRow, ProjectRow } from './project-rows.ts';
import { key, table } from './table.ts';

const { UUID, TEXT, INTEGER, DATEONLY, JSONB } = DataTypes;

/** Projects, their animals and what is planned for them. */
export const projectModels = (sequelize: Sequelize) => ({
  projects: table<ProjectRow>(sequelize, 'projects', {
    collectionId: key(),
    id: key(),
    name: TEXT,
    targets: JSONB,
    note: TEXT,
    plan: JSONB,
    startedOn: DATEONLY,
    endedOn: DATEONLY,
    authorId: UUID,
    version: INTEGER,
  }),
  projectAnimals: table<ProjectAnimalRow>(sequelize, 'project_animals', {
    collectionId: key(),
    id: key(),
    projectId: UUID,
    animalId: UUID,
    reason: TEXT,
    step: INTEGER,
    addedOn: DATEONLY,
    authorId: UUID,
  }),
  plannedPairings: table<PlannedPairingRow>(sequelize, 'planned_pairings', {
    collectionId: key(),
    id: key(),
    projectId: UUID,
    season: INTEGER,
    damId: UUID,
    sireId: UUID,
    authorId: UUID,
  }),
});
