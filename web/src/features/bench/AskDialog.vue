<script setup lang="ts">
import { newOpinionLink, type BenchView, type NewOpinionLink } from '@karyotome/contract';
import { mdiContentCopy } from '@mdi/js';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCopy } from '../../stores/useCopy.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import CheckList from '../../ui/CheckList.vue';
import FormDialog from '../../ui/FormDialog.vue';

/** Asks somebody without an account: an address that shows pictures and takes one answer. */
const props = defineProps<{ bench: BenchView }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const copy = useCopy();
const pictured = computed(() => props.bench.hatchlings.filter(({ pictureIds }) => pictureIds.length > 0));
const chosen = ref<string[]>(pictured.value.filter(({ identified }) => !identified).map(({ id }) => id));
/** Addresses that were made here, by their ids: each is told this once. */
const paths = ref<Readonly<Record<string, string>>>({});
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `ask.${props.bench.clutch.id}`,
  initial: () => ({ note: '' }),
  schema: newOpinionLink,
  toInput: ({ note }) => ({ animalIds: chosen.value, note }),
  send: async (link: NewOpinionLink) => {
    const { id, path } = await api.addOpinionLink(props.bench.clutch.id, link);
    paths.value = { ...paths.value, [id]: path };
  },
});
const revoking = useWrite(api.revokeOpinionLink);
const addressOf = (path: string): string => `${location.origin}${path}`;
const copyAddress = (path: string): Promise<void> =>
  copy(addressOf(path), 'Address copied', 'The address could not be copied: mark it and copy it by hand');
async function send(): Promise<void> {
  if (await submit()) notices.say('The address is ready: send it to whom you ask');
}
</script>

<template>
  <FormDialog
    title="Ask somebody outside"
    submit-text="Make an address"
    :max-width="640"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <p class="wide small">
      Whoever has the address sees the pictures with their numbers and your collection’s name, the parents’
      genes and what the pair can give, and answers once, without an account. It is shown this once, and runs
      out after 30 days.
    </p>
    <div v-if="bench.links.length > 0" class="wide links">
      <div v-for="link in bench.links" :key="link.id" class="link">
        <code v-if="paths[link.id]" class="address">{{ addressOf(paths[link.id]!) }}</code>
        <span class="small soft">{{ link.numbers.join(', ') }}, until {{ dayWords(link.expiresOn) }}</span>
        <span class="row">
          <v-btn
            v-if="paths[link.id]"
            size="small"
            variant="outlined"
            :prepend-icon="mdiContentCopy"
            @click="copyAddress(paths[link.id]!)"
            >Copy</v-btn
          >
          <v-btn size="small" variant="text" @click="revoking.run(link.id)">Withdraw</v-btn>
        </span>
      </div>
    </div>
    <p v-if="pictured.length === 0" class="wide">Add pictures first: there is nothing to judge by yet.</p>
    <CheckList
      v-else
      v-model="chosen"
      legend="About"
      :items="pictured.map(({ id, number }) => ({ value: id, title: number }))"
      class="wide"
    />
    <v-textarea
      v-model="draft.note"
      label="What you would like to know"
      rows="2"
      class="wide"
      :error-messages="errorsOf('note')"
    />
  </FormDialog>
</template>

<style scoped>
.links {
  display: grid;
  gap: 8px;
}
.link {
  display: grid;
  gap: 4px;
  padding: 8px 12px;
  border: 1px solid var(--hair);
  border-radius: 10px;
}
.address {
  overflow-wrap: anywhere;
}
</style>
