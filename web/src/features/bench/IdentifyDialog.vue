<script setup lang="ts">
import {
  newRecord,
  SURENESSES,
  validate,
  type FieldProblem,
  type HatchlingView,
  type NewRecord,
} from '@karyotome/contract';
import { parseGenes, type VisibleOutcome } from '@karyotome/core';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { localToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';
import GenesField from '../../ui/GenesField.vue';
import OutcomeList from '../../ui/OutcomeList.vue';

/** Names a hatchling's morph: from what the pairing can produce, or by typing, with how sure and by whom. */
const props = defineProps<{ hatchling: HatchlingView; outcomes: readonly VisibleOutcome[] }>();
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const { draft, discard } = useDraft(`identify.${props.hatchling.id}`, () => ({
  genes: '' as string | null,
  sure: 'certain',
  by: session.name,
  on: localToday(),
  search: '',
}));
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite((record: NewRecord) => api.addRecord(props.hatchling.id, record));
const undoing = useWrite((id: string) => api.voidRecord(id, 'Undone'));
const shown = computed(() => {
  const words = draft.search.toLowerCase().split(/\s+/).filter(Boolean);
  return props.outcomes
    .filter((outcome) => words.every((word) => outcome.label.toLowerCase().includes(word)))
    .slice(0, 40);
});
const chosen = computed(() => props.outcomes.find((outcome) => outcome.label === draft.genes)?.label ?? null);
/** What the list cannot say: judged by the server too, and flagged there with the reason. */
const isOutside = computed(() => {
  const text = (draft.genes ?? '').trim();
  if (text === '' || parseGenes(text).unknown.length > 0) return false;
  const visible = text.replace(/\([^)]*\)/g, '').trim();
  return !props.outcomes.some((outcome) => outcome.label.toLowerCase() === visible.toLowerCase());
});
const errorsOf = (field: string): string[] => [
  ...local.value.filter((p) => p.field === field).map((p) => p.message),
  ...write.errorsOf(field),
];

async function submit(): Promise<void> {
  const result = validate(newRecord, {
    kind: 'identification',
    on: draft.on,
    body: { genes: draft.genes ?? '', sure: draft.sure, by: draft.by },
  });
  local.value = result.ok ? [] : result.problems;
  if (!result.ok) return;
  const sent = await write.run(result.value);
  if (!sent) return;
  discard();
  const { id, warnings } = sent.value;
  if (warnings.length > 0) notices.warn(`Recorded, but flagged: ${warnings.join('. ')}`);
  else notices.say(`${props.hatchling.number} identified`, async () => void (await undoing.run(id)));
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="820" @update:model-value="emit('close')">
    <v-card
      :title="`What is ${hatchling.number}?`"
      :subtitle="hatchling.sex === 'unknown' ? 'Not sexed yet' : hatchling.sex"
    >
      <v-card-text class="body">
        <section>
          <v-text-field
            v-model="draft.search"
            label="Find among what the pair can produce"
            density="compact"
            clearable
            @click:clear="draft.search = ''"
          />
          <div class="list">
            <OutcomeList :outcomes="shown" selectable :chosen="chosen" @choose="draft.genes = $event.label" />
          </div>
        </section>
        <form id="identify-form" class="stack" novalidate @submit.prevent="submit">
          <GenesField
            v-model="draft.genes"
            label="Identified as"
            :errors="errorsOf('body.genes')"
            hint="Choose from the list or type. In brackets what may be there unseen: (OD)"
          />
          <v-alert v-if="isOutside" type="warning" variant="tonal" density="compact" :icon="false">
            Not in the list of what this pairing can give as recorded. It can be recorded all the same, and
            will be flagged with the reason.
          </v-alert>
          <div>
            <span class="small">How sure</span>
            <v-btn-toggle v-model="draft.sure" class="sure">
              <v-btn v-for="word in SURENESSES" :key="word" :value="word">{{ word }}</v-btn>
            </v-btn-toggle>
          </div>
          <v-text-field v-model="draft.by" label="By whom" :error-messages="errorsOf('body.by')" />
          <p class="small soft">
            A photograph alone is a guess. Look again after the first and second shed: colours open up, some
            fade.
          </p>
          <v-alert
            v-if="write.general(['body.genes', 'body.by', 'on'])"
            type="error"
            variant="tonal"
            :icon="false"
            role="alert"
            >{{ write.message.value }}</v-alert
          >
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="(discard(), emit('close'))">Discard</v-btn>
        <v-spacer />
        <v-btn type="submit" form="identify-form" color="primary" variant="flat" :loading="write.busy.value"
          >Record identification</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.body {
  display: grid;
  grid-template-columns: 1.1fr 1fr;
  gap: 20px;
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
  .body {
    grid-template-columns: 1fr;
  }
  .list {
    max-height: 260px;
  }
}
</style>
