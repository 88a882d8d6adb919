<script setup lang="ts">
import { newRecord, SURENESSES, type HatchlingView, type NewRecord } from '@karyotome/contract';
import { parseGenes, type VisibleOutcome } from '@karyotome/core';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { localToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCatalogue } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FormDialog from '../../ui/FormDialog.vue';
import GenesField from '../../ui/GenesField.vue';
import OutcomeList from '../../ui/OutcomeList.vue';

/** Names a hatchling's morph: from what the pairing can produce, or by typing, with how sure and by whom. */
const props = defineProps<{ hatchling: HatchlingView; outcomes: readonly VisibleOutcome[] }>();
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const search = ref('');
const catalogue = useCatalogue();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `identify.${props.hatchling.id}`,
  initial: () => ({ genes: '' as string | null, sure: 'certain', by: session.name, on: localToday() }),
  schema: newRecord,
  toInput: ({ genes, sure, by, on }) => ({
    kind: 'identification',
    on,
    body: { genes: genes ?? '', sure, by },
  }),
  send: (record: NewRecord) => api.addRecord(props.hatchling.id, record),
});
const undoing = useWrite((id: string) => api.voidRecord(id, 'Undone'));
const shown = computed(() => {
  const words = (search.value ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  return props.outcomes
    .filter((outcome) => words.every((word) => outcome.label.toLowerCase().includes(word)))
    .slice(0, 40);
});
const chosen = computed(() => props.outcomes.find((outcome) => outcome.label === draft.genes)?.label ?? null);
/** What the list cannot say: judged by the server too, and flagged there with the reason. */
const isOutside = computed(() => {
  const text = (draft.genes ?? '').trim();
  if (text === '' || parseGenes(text, catalogue.value).unknown.length > 0) return false;
  const visible = text.replace(/\([^)]*\)/g, '').trim();
  return !props.outcomes.some((outcome) => outcome.label.toLowerCase() === visible.toLowerCase());
});

async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  const { id, warnings } = sent.value;
  if (warnings.length > 0) notices.warn(`Recorded, but flagged: ${warnings.join('. ')}`);
  else notices.say(`${props.hatchling.number} identified`, async () => void (await undoing.run(id)));
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="`What is ${hatchling.number}?`"
    :subtitle="hatchling.sex === 'unknown' ? 'Not sexed yet' : hatchling.sex"
    submit-text="Record identification"
    :max-width="820"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <section class="choose">
      <v-text-field
        v-model="search"
        label="Find among what the pair can produce"
        density="compact"
        clearable
      />
      <div class="list">
        <OutcomeList :outcomes="shown" selectable :chosen="chosen" @choose="draft.genes = $event.label" />
      </div>
    </section>
    <div class="stack">
      <GenesField
        :catalogue="catalogue"
        v-model="draft.genes"
        label="Identified as"
        :errors="errorsOf('body.genes')"
        hint="Choose from the list or type. In brackets what may be there unseen: (OD)"
      />
      <v-alert v-if="isOutside" type="warning" variant="tonal" density="compact" :icon="false">
        Not in the list of what this pairing can give as recorded. It can be recorded all the same, and will
        be flagged with the reason.
      </v-alert>
      <div>
        <span class="small">How sure</span>
        <v-btn-toggle v-model="draft.sure" class="sure">
          <v-btn v-for="word in SURENESSES" :key="word" :value="word">{{ word }}</v-btn>
        </v-btn-toggle>
      </div>
      <v-text-field v-model="draft.by" label="By whom" :error-messages="errorsOf('body.by')" />
      <p class="small soft">
        A photograph alone is a guess. Look again after the first and second shed: colours open up, some fade.
      </p>
    </div>
  </FormDialog>
</template>

<style scoped>
.choose {
  min-width: min(340px, 100%);
}
.list {
  max-height: 420px;
  margin-top: 8px;
  padding: 2px;
  overflow-y: auto;
}
.sure {
  display: flex;
  margin-top: 4px;
}
.sure :deep(.v-btn) {
  flex: 1;
  text-transform: capitalize;
}
@media (width < 760px) {
  .choose {
    grid-column: 1 / -1;
  }
  .list {
    max-height: 260px;
  }
}
</style>
