import type { Migration } from '../migration.ts';

const ROLES = "('owner', 'keeper', 'helper', 'viewer', 'custom')";
const GRANTS = "array['view', 'record', 'breed', 'house', 'sell', 'manage']";

/* Roles are sets of permissions: presets, known by their name, and sets of one's own. */
export const grants: Migration = {
  name: '20261130210000-grants',
  up: ['memberships', 'invitations']
    .map(
      (table) => `
    alter table ${table} drop constraint ${table}_role_check;
    alter table ${table} add constraint ${table}_role_check check (role in ${ROLES});
    alter table ${table} add column grants text[];
    alter table ${table} add constraint ${table}_grants check (
      case role when 'custom' then grants is not null and grants <@ ${GRANTS} and 'view' = any (grants)
           else grants is null end);`,
    )
    .join('\n'),
  down: ['memberships', 'invitations']
    .map(
      (table) => `
    update ${table} set role = case when 'record' = any (grants) then 'keeper' else 'viewer' end, grants = null
     where role = 'custom';
    update ${table} set role = 'viewer' where role = 'helper';
    alter table ${table} drop column grants;
    alter table ${table} drop constraint ${table}_role_check;
    alter table ${table} add constraint ${table}_role_check check (role in ('owner', 'keeper', 'viewer'));`,
    )
    .join('\n'),
};
