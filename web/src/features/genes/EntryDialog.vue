<script setup lang="ts">
import type { CatalogueEntryInput, CatalogueView } from '@karyotome/contract';
import { computed } from 'vue';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import FormDialog from '../../ui/FormDialog.vue';
import { useEntryForm } from './useEntryForm.ts';
import GenesField from '../../ui/GenesField.vue';
import type { GeneRule } from './gene-rules.ts';
import TrialNote from './TrialNote.vue';

/** An entry of the collection's own: a gene or line, an allele, a word, or another recombination. */
const props = defineProps<{
  kind: Exclude<CatalogueEntryInput['kind'], 'marker' | GeneRule['kind']>;
  locus?: string;
  allele?: string;
  editing?: CatalogueView['entries'][number];
}>();
const emit = defineEmits<{ close: [] }>();
const catalogue = useCatalogue();
const before = props.editing?.entry;
const ownGene = before?.kind === 'locus' ? before : null;
const TITLES = {
  locus: 'A gene or line of your own',
  allele: 'An allele of your own',
  alias: 'A word for a combination',
  correction: 'How it shows, as you see it',
  recombination: 'How often it crosses over',
} as const;
const EXPRESSIONS = [
  { value: 'recessive', title: 'Recessive: two copies show' },
  { value: 'incomplete-dominant', title: 'Incomplete dominant: one shows, two differ' },
  { value: 'dominant', title: 'Dominant: two look like one' },
];
const place = computed(() => catalogue.value.locusById(props.locus ?? ''));
const corrected = catalogue.value.alleleById(props.allele ?? '')?.allele;
const isRecessivePlace = place.value?.alleles.every(({ expression }) => expression === 'recessive') ?? false;
const { draft, discard, send, errorsOf, general, busy, input } = useEntryForm({
  key: `catalogue.${props.editing?.id ?? `${props.kind}.${props.locus ?? ''}`}`,
  initial: () => ({
    name: before && 'name' in before ? before.name : '',
    expression:
      before && 'expression' in before
        ? before.expression
        : (corrected?.expression ??
          (props.kind === 'locus' || isRecessivePlace ? 'recessive' : 'incomplete-dominant')),
    double: (before && 'double' in before ? before.double : corrected?.double) ?? '',
    isUnproven: ownGene?.isUnproven === true,
    isLinked: ownGene?.recombination != null,
    percent:
      before && 'recombination' in before && before.recombination != null
        ? before.recombination * 100
        : (place.value?.sexLinked?.recombination ?? 0.07) * 100,
    word: before?.kind === 'alias' ? before.word : '',
    genes: (before?.kind === 'alias' ? before.genes : '') as string | null,
  }),
  toInput: ({ name, expression, double, isUnproven, isLinked, percent, word, genes }) => {
    const { kind, locus, allele } = props;
    const recombination = Number((percent / 100).toFixed(6));
    switch (kind) {
      case 'locus':
        // What nobody knows yet is not asked for: an animal that is said to have it shows it.
        if (isUnproven) return { kind, name, expression: 'incomplete-dominant', isUnproven };
        return {
          kind,
          name,
          expression,
          double: double || null,
          recombination: isLinked ? recombination : null,
        };
      case 'allele':
        return { kind, locus, name, expression, double: double || null };
      case 'alias':
        return { kind, word, genes: genes ?? '' };
      case 'correction':
        return { kind, allele, expression, double: double || null };
      case 'recombination':
        return { kind, locus, recombination };
    }
  },
  editing: () => props.editing,
  said: () => 'Saved. What depends on it is worked out anew.',
  close: () => emit('close'),
});
</script>

<template>
  <FormDialog
    :title="TITLES[kind]"
    :subtitle="corrected?.name ?? (kind === 'locus' ? undefined : place?.name)"
    submit-text="Save"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <template v-if="kind === 'locus' || kind === 'allele' || kind === 'correction'">
      <v-text-field
        v-if="kind !== 'correction'"
        v-model="draft.name"
        label="Name"
        :hint="
          kind === 'locus'
            ? 'A line that does not combine with others is a gene of its own'
            : 'It excludes the other alleles here: two places in all'
        "
        persistent-hint
        maxlength="40"
        :error-messages="errorsOf('name', 'key', 'locus')"
      />
      <v-checkbox
        v-if="kind === 'locus'"
        v-model="draft.isUnproven"
        label="Not proven: it looks different, and nobody knows yet whether it is inherited"
        hide-details
        class="wide"
      />
      <v-select
        v-if="!draft.isUnproven"
        v-model="draft.expression"
        label="How it shows"
        :items="EXPRESSIONS"
        :error-messages="errorsOf('expression')"
      />
      <v-text-field
        v-if="!draft.isUnproven && draft.expression !== 'recessive'"
        v-model="draft.double"
        label="Name of the double, if it has one"
        maxlength="40"
        :error-messages="errorsOf('double')"
      />
      <v-checkbox
        v-if="kind === 'locus' && !draft.isUnproven"
        v-model="draft.isLinked"
        label="Lies on the sex chromosomes"
        hide-details
        class="wide"
      />
    </template>
    <template v-if="kind === 'alias'">
      <v-text-field v-model="draft.word" label="Word" maxlength="40" :error-messages="errorsOf('word')" />
      <GenesField
        v-model="draft.genes"
        :catalogue="catalogue"
        label="The genes it stands for"
        hint="It is replaced by these before anything is computed"
        :errors="errorsOf('genes')"
      />
    </template>
    <v-number-input
      v-if="kind === 'recombination' || (kind === 'locus' && draft.isLinked && !draft.isUnproven)"
      v-model="draft.percent"
      label="Crosses over, in percent of a male’s young"
      :min="0"
      :max="50"
      :precision="2"
      control-variant="hidden"
      class="wide"
      :error-messages="errorsOf('recombination')"
    />
    <TrialNote
      v-if="kind === 'correction' || kind === 'recombination'"
      :entry="input"
      :replaces="editing?.id ?? null"
    />
  </FormDialog>
</template>
