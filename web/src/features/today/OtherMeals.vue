<script setup lang="ts">
/** What else can have happened at a meal that was due. */
defineEmits<{ meal: []; notOffered: []; regurgitated: [] }>();
</script>

<template>
  <v-list>
    <v-list-item title="Another meal…" @click="$emit('meal')" />
    <v-list-item title="Not offered tonight" @click="$emit('notOffered')" />
    <v-list-item title="Regurgitated" @click="$emit('regurgitated')" />
  </v-list>
</template>
