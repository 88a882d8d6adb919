<script setup lang="ts">
/** Asks once more before something that cannot be taken back. The slot says what happens. */
defineProps<{ title: string; submitText: string }>();
defineEmits<{ close: []; confirm: [] }>();
</script>

<template>
  <v-dialog :model-value="true" max-width="480" @update:model-value="$emit('close')">
    <v-card :title="title">
      <v-card-text><slot /></v-card-text>
      <v-card-actions>
        <v-btn @click="$emit('close')">Keep</v-btn>
        <v-spacer />
        <v-btn color="error" variant="flat" @click="$emit('confirm')">{{ submitText }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
