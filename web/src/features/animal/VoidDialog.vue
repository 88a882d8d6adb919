<script setup lang="ts">
import { ref } from 'vue';

defineProps<{ text: string }>();
const emit = defineEmits<{ close: []; confirm: [string] }>();
const reason = ref('');
const tried = ref(false);
function confirm(): void {
  tried.value = true;
  if (reason.value.trim() !== '') emit('confirm', reason.value.trim());
}
</script>

<template>
  <v-dialog :model-value="true" max-width="460" @update:model-value="emit('close')">
    <v-card title="Void this record">
      <v-card-text class="stack">
        <p>{{ text }}</p>
        <p class="small soft">It is kept and can be seen, but counts for nothing any more.</p>
        <v-text-field
          v-model="reason"
          label="Why"
          autofocus
          :error-messages="tried && reason.trim() === '' ? ['is missing'] : []"
          @keyup.enter="confirm"
        />
      </v-card-text>
      <v-card-actions>
        <v-btn @click="emit('close')">Keep it</v-btn>
        <v-spacer />
        <v-btn color="error" variant="flat" @click="confirm">Void</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
