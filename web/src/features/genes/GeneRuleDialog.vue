<script setup lang="ts">
import type { CatalogueView } from '@karyotome/contract';
import { DISPUTED_ALLELISM, WILD } from '@karyotome/core';
import { computed } from 'vue';
import { useGeneOccurrence } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import FormDialog from '../../ui/FormDialog.vue';
import { useEntryForm } from './useEntryForm.ts';
import type { GeneRule } from './gene-rules.ts';
import TrialNote from './TrialNote.vue';

/** What the collection sees otherwise than the catalogue: two alleles together, where an allele belongs, how labels begin. */
const props = defineProps<{
  rule: GeneRule;
  editing?: CatalogueView['entries'][number];
}>();
const emit = defineEmits<{ close: [] }>();
const catalogue = useCatalogue();
const TITLES = {
  compound: 'The name of two together',
  viability: 'How many live',
  allelism: 'Where it belongs',
  frequency: 'How often it is carried unsaid',
  'label-order': 'What labels name first',
} as const;
const locus = computed(() => (props.rule.locus ? catalogue.value.locusById(props.rule.locus) : undefined));
const allele = props.rule.allele;
const alleleItems = computed(() => [
  ...(props.rule.kind === 'viability' ? [{ value: WILD, title: 'Wild type' }] : []),
  ...(locus.value?.alleles ?? []).map(({ id, name }) => ({ value: id, title: name })),
]);
/** The loci that the trade names come first. */
const targets = computed(() => {
  const disputed = DISPUTED_ALLELISM[allele ?? ''] ?? [];
  return catalogue.value.loci
    .filter(({ id, sexLinked }) => id !== props.rule.locus && !sexLinked)
    .toSorted((a, b) => Number(disputed.includes(b.id)) - Number(disputed.includes(a.id)))
    .map(({ id, name }) => ({ value: id, title: disputed.includes(id) ? `${name} (disputed)` : name }));
});
const lociItems = computed(() => catalogue.value.loci.map(({ id, name }) => ({ value: id, title: name })));
const { data: occurrence } = useGeneOccurrence();
/** So many loci make an order: who has more puts the rest where it belongs by hand. */
const MOST_ORDERED = 30;
/** Recessive loci are named last in any order: what shows comes first. */
const occurring = computed(() =>
  (occurrence.value ?? [])
    .map(({ locus: id }) => id)
    .filter(
      (id) => !catalogue.value.locusById(id)?.alleles.every(({ expression }) => expression === 'recessive'),
    )
    .slice(0, MOST_ORDERED),
);
const before = props.editing?.entry;
const { draft, discard, send, errorsOf, general, busy, input } = useEntryForm({
  key: `gene-rule.${props.editing?.id ?? `${props.rule.kind}.${props.rule.locus ?? ''}.${allele ?? ''}`}`,
  initial: () => ({
    one: before && 'alleles' in before ? before.alleles[0] : (allele ?? null),
    other: before && 'alleles' in before ? before.alleles[1] : (allele ?? null),
    name: before?.kind === 'compound' ? before.name : '',
    living: before?.kind === 'viability' ? before.p * 100 : 0,
    target: before?.kind === 'allelism' ? before.locus : (targets.value[0]?.value ?? null),
    percent: before?.kind === 'frequency' ? before.frequency * 100 : 1,
    loci: before?.kind === 'label-order' ? [...before.loci] : ([] as string[]),
  }),
  toInput: ({ one, other, name, living, target, percent, loci }) => {
    const { kind } = props.rule;
    switch (kind) {
      case 'compound':
        return { kind, alleles: [one, other], name };
      case 'viability':
        return { kind, alleles: [one, other], p: living / 100 };
      case 'allelism':
        return { kind, allele, locus: target };
      case 'frequency':
        return { kind, allele, frequency: Number((percent / 100).toFixed(6)) };
      case 'label-order':
        return { kind, loci };
    }
  },
  editing: () => props.editing,
  said: () => 'Saved. What depends on it is worked out anew.',
  close: () => emit('close'),
});
</script>

<template>
  <FormDialog
    :title="TITLES[rule.kind]"
    :subtitle="allele ? catalogue.alleleName(allele) : locus?.name"
    submit-text="Save"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <template v-if="rule.kind === 'compound' || rule.kind === 'viability'">
      <v-select
        v-model="draft.one"
        label="One copy of"
        :items="alleleItems"
        :error-messages="errorsOf('alleles')"
      />
      <v-select v-model="draft.other" label="and one of" :items="alleleItems" />
    </template>
    <v-text-field
      v-if="rule.kind === 'compound'"
      v-model="draft.name"
      label="Is called"
      maxlength="40"
      :error-messages="errorsOf('name', 'key')"
    />
    <v-number-input
      v-if="rule.kind === 'viability'"
      v-model="draft.living"
      label="Of a hundred such eggs hatch"
      :min="0"
      :max="100"
      control-variant="hidden"
      :error-messages="errorsOf('p')"
    />
    <v-autocomplete
      v-if="rule.kind === 'allelism'"
      v-model="draft.target"
      class="wide"
      label="It is an allele of"
      :items="targets"
      :error-messages="errorsOf('locus', 'allele', 'expression')"
    />
    <v-number-input
      v-if="rule.kind === 'frequency'"
      v-model="draft.percent"
      label="Percent of alleles in animals of which nobody said so"
      class="wide"
      :min="0"
      :max="50"
      :precision="2"
      control-variant="hidden"
      :error-messages="errorsOf('frequency', 'allele')"
    />
    <v-autocomplete
      v-if="rule.kind === 'label-order'"
      v-model="draft.loci"
      class="wide"
      label="Named first, in this order"
      hint="Choose them one after the other; the others follow as the catalogue has them"
      persistent-hint
      multiple
      chips
      closable-chips
      :items="lociItems"
      :error-messages="errorsOf('loci')"
    />
    <v-btn
      v-if="rule.kind === 'label-order' && occurring.length > 0"
      class="wide"
      variant="outlined"
      @click="draft.loci = occurring"
      >In the order of how many animals here have them</v-btn
    >
    <TrialNote v-if="rule.kind !== 'label-order'" :entry="input" :replaces="editing?.id ?? null" />
  </FormDialog>
</template>
