<script setup lang="ts">
import WorkProgress from '../../ui/WorkProgress.vue';
import LoggerZoneDialog from './LoggerZoneDialog.vue';
import type { LoggerFile } from './useLoggerFile.ts';

/** What is asked and told of a logger's file that is being read. */
const props = defineProps<{ file: LoggerFile }>();
const { asked, refused, read, work } = props.file;
const LINES_SHOWN = 8;
</script>

<template>
  <v-alert v-if="refused" type="error" variant="tonal" :icon="false" class="mb-4" role="alert">
    <strong>{{ refused.name }} was not taken: nothing of it was kept.</strong>
    <ul>
      <li v-for="line in refused.lines.slice(0, LINES_SHOWN)" :key="line">{{ line }}</li>
      <li v-if="refused.lines.length > LINES_SHOWN">
        and {{ refused.lines.length - LINES_SHOWN }} more lines
      </li>
    </ul>
  </v-alert>
  <WorkProgress
    v-if="work.isRunning.value"
    class="mb-4"
    :progress="work.progress.value"
    @cancel="work.cancel()"
  />
  <LoggerZoneDialog v-if="asked" :file-name="asked.file.name" @close="asked = null" @chosen="read" />
</template>
