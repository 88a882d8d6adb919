<script setup lang="ts">
import { BACKUP_FAULT_WORDS } from '@karyotome/words';
import { countWords, fileSizeWords, momentWords } from '../../format/format.ts';
import { useBackup } from '../../stores/queries.ts';

/** When the server was last backed up, and a warning where that is too long ago. */
const { data } = useBackup();
</script>

<template>
  <section v-if="data" class="backup">
    <h2>Backup</h2>
    <v-alert
      v-if="data.isLate && (data.isNightly || data.last)"
      type="warning"
      variant="tonal"
      :icon="false"
      role="alert"
    >
      {{
        data.last
          ? 'The last backup is older than two days.'
          : 'There is no backup yet. The first is made within half an hour of the first start.'
      }}
    </v-alert>
    <v-alert v-if="data.failed" type="error" variant="tonal" :icon="false" role="alert">
      The backup of {{ momentWords(data.failed.at) }} could not be made:
      {{ BACKUP_FAULT_WORDS[data.failed.fault] }}.
    </v-alert>
    <p v-if="data.last">
      Last made {{ momentWords(data.last.madeAt) }}, {{ fileSizeWords(data.last.bytes) }}, with
      {{ countWords(data.last.files, 'file', 'files') }}.
      <span v-if="data.last.missing > 0" class="missing">
        {{ countWords(data.last.missing, 'file was', 'files were') }} missing or damaged on the server
        already.
      </span>
    </p>
    <p v-if="data.last" class="small soft path">{{ data.last.folder }}/{{ data.last.file }}</p>
    <p class="small soft">
      <template v-if="data.isNightly"
        >All records, pictures and keys of this server are backed up every night. Copy the archives to another
        place as well: a disk takes everything on it along.</template
      >
      <template v-else>No backups are made every night on this server.</template>
      To restore one takes its passphrase, which <code>npm run admin -- backup-passphrase</code> shows on the
      server. Write it down and keep it elsewhere.
    </p>
  </section>
</template>

<style scoped>
.backup {
  display: grid;
  gap: 8px;
  max-width: 620px;
  margin-top: 32px;
}
.path {
  overflow-wrap: anywhere;
}
.missing {
  color: rgb(var(--v-theme-error));
}
</style>
