<script setup lang="ts">
import { nextTick, onMounted, ref, useId } from 'vue';

/** A form in a dialog: fields, what is wrong in general, and the way out with or without sending. */
defineProps<{
  title: string;
  submitText: string;
  busy: boolean;
  general: () => string | null;
  subtitle?: string;
  maxWidth?: number;
}>();
defineEmits<{ close: []; discard: []; submit: [] }>();
const id = useId();
const form = ref<HTMLFormElement | null>(null);
// At once, not when the dialog has settled: a focus that comes late steals the keys from a quick typist. Not on a phone,
// where it would open the keyboard over the form.
onMounted(async () => {
  await nextTick();
  const first = form.value?.querySelector<HTMLElement>('input, textarea');
  // A chooser would open its list over the form.
  if (first?.getAttribute('role') !== 'combobox' && matchMedia('(pointer: fine)').matches) first?.focus();
});
</script>

<template>
  <v-dialog :model-value="true" :max-width="maxWidth ?? 560" @update:model-value="$emit('close')">
    <v-card :title="title" :subtitle="subtitle">
      <v-card-text>
        <div :class="{ beside: $slots['beside'] }">
          <slot name="beside" />
          <form :id="id" ref="form" class="fields" novalidate @submit.prevent="$emit('submit')">
            <slot />
            <v-alert
              v-if="general()"
              type="error"
              variant="tonal"
              density="compact"
              :icon="false"
              class="wide"
              role="alert"
            >
              {{ general() }}
            </v-alert>
          </form>
        </div>
        <slot name="after" />
      </v-card-text>
      <v-card-actions>
        <v-btn @click="($emit('discard'), $emit('close'))">Discard</v-btn>
        <slot name="actions" />
        <v-spacer />
        <slot name="more" />
        <v-btn type="submit" :form="id" color="primary" variant="flat" :loading="busy">{{
          submitText
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
/* What is read while the form is filled in. */
.beside {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 24px;
}
@media (width < 800px) {
  .beside {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
