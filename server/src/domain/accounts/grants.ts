import { grantsOf, type Grant, type Role, type RoleChoice } from '@karyotome/contract';
import type { Actor } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';

/** A choice as it is stored: a preset is known by its name alone, so that it may come to mean more. */
export const asStored = (choice: RoleChoice): { role: Role; grants: readonly Grant[] | null } => ({
  role: choice.role,
  grants: choice.role === 'custom' ? grantsOf(choice) : null,
});

/** Nobody gives what they have not. @throws Refusal `not-allowed` */
export function refuseMoreThanOwn(actor: Actor, choice: Parameters<typeof grantsOf>[0]): void {
  if (actor.role === 'owner') return;
  const own = grantsOf(actor);
  if (choice.role === 'owner' || grantsOf(choice).some((grant) => !own.includes(grant)))
    throw new Refusal('not-allowed', 'Nobody can give more than they may do themselves: ask the owner.');
}
