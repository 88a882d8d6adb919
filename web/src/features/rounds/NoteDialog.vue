<script setup lang="ts">
import type { RoundAnimal } from '@karyotome/contract';
import { computed } from 'vue';
import { useDraft } from '../../stores/useDraft.ts';
import FormDialog from '../../ui/FormDialog.vue';

/** A private note, kept as it is typed. */
const props = defineProps<{ animal: RoundAnimal }>();
const emit = defineEmits<{ keep: [text: string]; close: [] }>();
const { draft, discard } = useDraft(`round.note.${props.animal.id}`, () => ({ text: '' }));
const isTooLong = computed(() => draft.text.length > 2000);
function keep(): void {
  const text = draft.text.trim();
  if (text === '' || isTooLong.value) return;
  discard();
  emit('keep', text);
}
</script>

<template>
  <FormDialog
    title="Note"
    :subtitle="animal.number"
    submit-text="Keep"
    :busy="false"
    :general="() => null"
    @close="emit('close')"
    @discard="discard"
    @submit="keep"
  >
    <v-textarea
      v-model="draft.text"
      label="Private note"
      rows="3"
      class="wide"
      :error-messages="isTooLong ? ['takes at most 2,000 characters'] : []"
    />
  </FormDialog>
</template>
