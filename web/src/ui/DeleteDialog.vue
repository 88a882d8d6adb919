<script setup lang="ts">
import { BIN_DAYS } from '@karyotome/contract';
import { api } from '../api/resources.ts';
import { useNotices } from '../stores/notices.ts';
import { useWrite } from '../stores/useWrite.ts';
import ReasonDialog from './ReasonDialog.vue';

/** Asks why, puts something into the bin, and offers to restore it. */
const props = defineProps<{
  /** What it is called. */
  name: string;
  /** What goes with it. */
  text: string;
  /** What is done instead of deleting, or what else should be known. */
  note?: string;
  /** @returns the entry of the bin */
  send: (reason: string) => Promise<{ id: string }>;
  restored?: () => unknown;
}>();
const emit = defineEmits<{ close: []; deleted: [] }>();
const notices = useNotices();
const removal = useWrite((reason: string) => props.send(reason));
const restoring = useWrite(api.restoreFromBin);
async function remove(reason: string): Promise<void> {
  const { name, restored } = props;
  const entry = await removal.run(reason);
  if (!entry) return;
  notices.say(`${name} deleted`, async () => {
    if (await restoring.run(entry.value.id)) await restored?.();
    else notices.warn(restoring.message.value ?? `${name} could not be restored`);
  });
  emit('deleted');
}
</script>

<template>
  <ReasonDialog
    :title="`Delete ${name}`"
    :text="text"
    :note="`For ${BIN_DAYS} days it can be restored in Settings, then it is erased. ${note ?? ''}`"
    submit-text="Delete"
    :refusal="removal.message.value"
    :busy="removal.busy.value"
    @close="emit('close')"
    @confirm="remove"
  />
</template>
