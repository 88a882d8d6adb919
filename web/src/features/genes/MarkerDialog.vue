<script setup lang="ts">
import { ZONES, type CatalogueMarker, type Zone } from '@karyotome/core';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCatalogueEntries } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FormDialog from '../../ui/FormDialog.vue';
import { useEntryForm } from './useEntryForm.ts';

/** A marker of the collection's own, or other chances for one that the catalogue has. */
const props = defineProps<{
  zone?: Zone;
  marker?: CatalogueMarker;
  /** Genes to choose from, `phenotype` of the pair in play; all of them where it is left out. */
  genes?: ReadonlySet<string>;
}>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const catalogue = useCatalogue();
const { data: own } = useCatalogueEntries();
const choices = computed(() =>
  catalogue.value.loci
    .flatMap(({ alleles }) => alleles)
    .filter(({ id }) => !props.genes || props.genes.has(id))
    .map(({ id, name }) => ({ value: id, title: name })),
);
const editing = computed(() =>
  own.value?.entries.find(
    ({ entry }) =>
      entry.kind === 'marker' &&
      props.marker?.phenotypes.includes(entry.phenotype) &&
      entry.zone === props.marker.zone &&
      entry.text === props.marker.text,
  ),
);
const { draft, discard, send, errorsOf, general, busy } = useEntryForm({
  key: `marker.${props.marker?.id ?? props.zone ?? 'new'}`,
  initial: () => ({
    phenotype: props.marker?.phenotypes[0] ?? choices.value[0]?.value ?? '',
    zone: props.marker?.zone ?? props.zone ?? ZONES[0],
    text: props.marker?.text ?? '',
    percentWith: Math.round((props.marker?.pWith ?? 0.8) * 100) as number | null,
    percentWithout: Math.round((props.marker?.pWithout ?? 0.1) * 100) as number | null,
  }),
  toInput: ({ phenotype, zone, text, percentWith, percentWithout }) => ({
    kind: 'marker',
    phenotype,
    zone,
    text,
    pWith: (percentWith ?? 0) / 100,
    pWithout: (percentWithout ?? 0) / 100,
  }),
  editing: () => editing.value,
  said: () =>
    props.marker ? 'Chances changed. The odds follow.' : 'Marker added. It can be looked for at once.',
  close: () => emit('close'),
});
const removal = useWrite(api.removeCatalogueEntry);
async function remove(): Promise<void> {
  if (!(await removal.run(editing.value!.id)))
    notices.warn(removal.message.value ?? 'It could not be taken out');
  discard();
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="marker ? 'How reliable is this marker?' : 'A marker of your own'"
    :subtitle="marker ? `${marker.zone}: ${marker.text}` : undefined"
    submit-text="Save"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <template v-if="!marker">
      <v-autocomplete
        v-model="draft.phenotype"
        label="Marks this gene"
        :items="choices"
        :error-messages="errorsOf('phenotype')"
      />
      <v-select v-model="draft.zone" label="Zone" :items="[...ZONES]" :error-messages="errorsOf('zone')" />
      <v-text-field
        v-model="draft.text"
        label="What is seen"
        hint="For example: two dark bars across the neck"
        persistent-hint
        class="wide"
        :error-messages="errorsOf('text', 'key')"
      />
    </template>
    <v-number-input
      v-model="draft.percentWith"
      label="Seen on animals with the gene, percent"
      :min="1"
      :max="99"
      control-variant="hidden"
      :error-messages="errorsOf('pWith')"
    />
    <v-number-input
      v-model="draft.percentWithout"
      label="Seen on animals without it, percent"
      :min="1"
      :max="99"
      control-variant="hidden"
      :error-messages="errorsOf('pWithout')"
    />
    <p class="wide small soft">
      The further apart the two, the more one look says. The built-in chances are rated by how far breeders
      agree about the gene; nobody has counted them.
    </p>
    <template v-if="editing" #actions><v-btn @click="remove">Back to the default</v-btn></template>
  </FormDialog>
</template>
