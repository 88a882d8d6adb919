<script setup lang="ts">
import type { KeyBackup } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Brings the signing key back from its backup. */
const props = defineProps<{ isNeeded: boolean }>();
const notices = useNotices();
const isOpen = ref(props.isNeeded);
const backup = ref<KeyBackup | null>(null);
const isUnreadable = ref(false);
const password = ref('');
const restoring = useWrite(api.restoreKey);
async function choose(chosen: File | File[] | null | undefined): Promise<void> {
  const [file] = [chosen ?? []].flat();
  backup.value = null;
  isUnreadable.value = false;
  if (!file) return;
  try {
    // The server checks what is in it.
    backup.value = JSON.parse(await file.text()) as KeyBackup;
  } catch {
    isUnreadable.value = true;
  }
}
async function restore(): Promise<void> {
  if (!backup.value || !(await restoring.run({ backup: backup.value, password: password.value }))) return;
  password.value = '';
  isOpen.value = false;
  notices.say('The key is back');
}
</script>

<template>
  <div v-if="!isOpen" class="row">
    <v-btn variant="text" @click="isOpen = true">Bring a key back from its backup…</v-btn>
  </div>
  <form v-else class="stack" @submit.prevent="restore">
    <v-file-input
      label="Backup (.json)"
      accept=".json,application/json"
      :error-messages="isUnreadable ? 'is no backup of a key' : restoring.errorsOf('backup')"
      @update:model-value="choose"
    />
    <v-text-field
      v-model="password"
      label="Its password"
      type="password"
      autocomplete="off"
      hide-details="auto"
      :error-messages="restoring.errorsOf('password')"
    />
    <v-alert
      v-if="restoring.general(['backup', 'password'])"
      type="error"
      variant="tonal"
      :icon="false"
      role="alert"
      >{{ restoring.general(['backup', 'password']) }}</v-alert
    >
    <div class="row">
      <v-btn type="submit" variant="outlined" :disabled="!backup" :loading="restoring.busy.value"
        >Bring it back</v-btn
      >
      <v-btn variant="text" @click="isOpen = false">Cancel</v-btn>
    </div>
  </form>
</template>
