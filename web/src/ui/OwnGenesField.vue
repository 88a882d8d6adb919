<script setup lang="ts">
import { api } from '../api/resources.ts';
import { useNotices } from '../stores/notices.ts';
import { useCatalogue } from '../stores/useCatalogue.ts';
import { useSession } from '../stores/session.ts';
import { useWrite } from '../stores/useWrite.ts';
import GenesField from './GenesField.vue';

/** A field for genes that reads by the collection's catalogue, and lets what was chosen be kept in it. */
defineProps<{ label?: string; errors?: string[]; hint?: string }>();
const text = defineModel<string | null>({ required: true });
const catalogue = useCatalogue();
const session = useSession();
const notices = useNotices();
const addition = useWrite(api.addCatalogueEntry);

async function settle(word: string, genes: string): Promise<void> {
  if (await addition.run({ kind: 'alias', word, genes }))
    notices.say(`“${word}” is read as ${genes} from now on. Genes lists it under your own.`);
  else notices.warn(addition.message.value ?? 'It could not be kept');
}
async function addLine(name: string): Promise<void> {
  if (await addition.run({ kind: 'locus', name, expression: 'recessive' }))
    notices.say(`${name} is a line of your own now: it combines with no other line.`);
  else notices.warn(addition.message.value ?? 'It could not be added');
}
</script>

<template>
  <GenesField
    v-model="text"
    :label="label"
    :errors="errors"
    :hint="hint"
    :catalogue="catalogue"
    :may-settle="session.mayBreed"
    @settle="settle"
    @add-line="addLine"
  />
</template>
