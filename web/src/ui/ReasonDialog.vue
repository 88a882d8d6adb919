<script setup lang="ts">
import { ref } from 'vue';
import RefusalAlert from './RefusalAlert.vue';

/** Asks why before something is taken away. */
defineProps<{
  title: string;
  text: string;
  note: string;
  submitText: string;
  /** Why it was refused; null where it was not. */
  refusal?: string | null;
  busy?: boolean;
}>();
const emit = defineEmits<{ close: []; confirm: [string] }>();
const reason = ref('');
const tried = ref(false);
function confirm(): void {
  tried.value = true;
  if (reason.value.trim() !== '') emit('confirm', reason.value.trim());
}
</script>

<template>
  <v-dialog :model-value="true" max-width="480" @update:model-value="emit('close')">
    <v-card :title="title">
      <v-card-text class="stack">
        <p>{{ text }}</p>
        <p class="small soft">{{ note }}</p>
        <v-text-field
          v-model="reason"
          label="Why"
          autofocus
          :error-messages="tried && reason.trim() === '' ? ['is missing'] : []"
          @keyup.enter="confirm"
        />
        <RefusalAlert :text="refusal ?? null" />
      </v-card-text>
      <v-card-actions>
        <v-btn @click="emit('close')">Keep it</v-btn>
        <v-spacer />
        <v-btn color="error" variant="flat" :loading="busy" @click="confirm">{{ submitText }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
