<script setup lang="ts">
import { newOpinion, SURENESSES, type HatchlingView, type NewOpinion } from '@karyotome/contract';
import { mdiClose } from '@mdi/js';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FormDialog from '../../ui/FormDialog.vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';

/** What others say one is: kept beside the identification, with a name and a day. It moves no odds. */
const props = defineProps<{ hatchling: HatchlingView; mayBreed: boolean }>();
const notices = useNotices();
const isOpen = ref(false);
const removal = useWrite(api.removeOpinion);
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `opinion.${props.hatchling.id}`,
  initial: () => ({
    by: '',
    genes: '' as string | null,
    sure: 'probable' as (typeof SURENESSES)[number],
    note: '',
  }),
  schema: newOpinion,
  toInput: ({ genes, ...rest }) => ({ ...rest, genes: genes ?? '' }),
  send: (opinion: NewOpinion) => api.addOpinion(props.hatchling.id, opinion),
});
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say('Second opinion kept');
  isOpen.value = false;
}
</script>

<template>
  <section class="opinions" aria-label="Second opinions">
    <h3>Second opinions</h3>
    <p v-if="hatchling.opinions.length === 0" class="small soft">
      None yet. A photograph alone is a guess: say so when you ask.
    </p>
    <div v-for="opinion in hatchling.opinions" :key="opinion.id" class="line small">
      <span>
        <strong>{{ opinion.genes }}</strong>, {{ opinion.sure }}, {{ opinion.by
        }}{{ opinion.isOutside ? ', from outside' : '' }}, {{ dayWords(opinion.on)
        }}<template v-if="opinion.note">: {{ opinion.note }}</template>
      </span>
      <v-btn
        v-if="mayBreed"
        :icon="mdiClose"
        size="x-small"
        variant="text"
        :aria-label="`Remove the opinion of ${opinion.by}`"
        @click="removal.run(opinion.id)"
      />
    </div>
    <v-btn v-if="mayBreed" variant="outlined" size="small" class="add" @click="isOpen = true"
      >Note a second opinion</v-btn
    >
    <FormDialog
      v-if="isOpen"
      title="A second opinion"
      :subtitle="hatchling.number"
      submit-text="Keep it"
      :busy="busy"
      :general="general"
      @close="isOpen = false"
      @discard="discard"
      @submit="send"
    >
      <v-text-field v-model="draft.by" label="Whose" :error-messages="errorsOf('by')" />
      <v-select v-model="draft.sure" label="How sure" :items="[...SURENESSES]" />
      <OwnGenesField
        v-model="draft.genes"
        label="What it is to them"
        :errors="errorsOf('genes')"
        hint="In their words"
      />
      <v-textarea v-model="draft.note" label="Why, if they said" rows="2" class="wide" />
    </FormDialog>
  </section>
</template>

<style scoped>
.opinions {
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 8px;
}
.add {
  justify-self: start;
}
</style>
