/** An animal that more than one project wants. */
export interface SharedAnimal {
  readonly animalId: string;
  /** In the order in which they were given. */
  readonly projectIds: readonly string[];
}

/**
 * Animals that several projects want at the same time.
 *
 * @param wants - for each project, the animals that it needs now
 * @example sharedAnimals([{ projectId: 'p', animalIds: ['a', 'b'] }, { projectId: 'q', animalIds: ['b'] }]) // [{"animalId":"b","projectIds":["p","q"]}]
 */
export function sharedAnimals(
  wants: readonly { readonly projectId: string; readonly animalIds: readonly string[] }[],
): SharedAnimal[] {
  const projects = new Map<string, string[]>();
  for (const { projectId, animalIds } of wants)
    for (const id of new Set(animalIds)) projects.set(id, [...(projects.get(id) ?? []), projectId]);
  return [...projects].flatMap(([animalId, projectIds]) =>
    projectIds.length > 1 ? [{ animalId, projectIds }] : [],
  );
}
