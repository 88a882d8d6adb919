<script setup lang="ts">
import {
  GRANTS,
  grantsOf,
  NEEDING_RECORD,
  ROLES,
  type Grant,
  type Role,
  type RoleChoice,
} from '@karyotome/contract';
import { GRANT_WORDS, ROLE_WORDS } from '@karyotome/words';

/** What somebody is given: a preset, or a set put together here. */
const model = defineModel<RoleChoice>({ required: true });
defineProps<{ label: string; density?: 'compact'; errors?: string[] }>();
const roles = ROLES.map((value) => ({ value, title: ROLE_WORDS[value].name }));

/** A set of one's own begins with what the role before it allowed. */
function choose(role: Role): void {
  model.value = role === 'custom' ? { role, grants: [...grantsOf(model.value)] } : { role };
}
function toggle(grant: Grant, isOn: boolean): void {
  const chosen = new Set(grantsOf(model.value));
  if (isOn) chosen.add(grant);
  else chosen.delete(grant);
  if (isOn && NEEDING_RECORD.includes(grant)) chosen.add('record');
  if (!isOn && grant === 'record') for (const one of NEEDING_RECORD) chosen.delete(one);
  model.value = { role: 'custom', grants: GRANTS.filter((one) => chosen.has(one)) };
}
</script>

<template>
  <div class="role">
    <v-select
      :model-value="model.role"
      :items="roles"
      :label="label"
      :hint="ROLE_WORDS[model.role].may"
      persistent-hint
      :density="density ?? 'default'"
      :error-messages="errors"
      @update:model-value="choose"
    />
    <fieldset v-if="model.role === 'custom'" class="grants" aria-label="Permissions">
      <v-checkbox
        v-for="grant in GRANTS"
        :key="grant"
        :model-value="grantsOf(model).includes(grant)"
        :label="GRANT_WORDS[grant]"
        :disabled="grant === 'view'"
        density="compact"
        hide-details
        @update:model-value="toggle(grant, $event === true)"
      />
    </fieldset>
  </div>
</template>

<style scoped>
.role {
  display: grid;
  gap: 4px;
}
.grants {
  padding: 0 0 0 4px;
  border: 0;
}
</style>
