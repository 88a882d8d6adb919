<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** What buyers see of this animal, and whether they see it. */
const props = defineProps<{ animal: AnimalView; mayRecord: boolean }>();
const notices = useNotices();
const { draft, discard } = useDraft(`publish.${props.animal.id}`, () => ({
  text: props.animal.publication?.text ?? '',
}));
const publishing = useWrite((text: string) => api.publish(props.animal.id, text || null));
const withdrawing = useWrite(() => api.withdraw(props.animal.id));
const url = computed(() =>
  props.animal.publication ? `${location.origin}/p/${props.animal.publication.slug}` : '',
);
const isReady = computed(() => props.animal.appetite.inARow >= 3);
async function publish(): Promise<void> {
  if (!(await publishing.run(draft.text.trim()))) return;
  discard();
  notices.say(`${props.animal.number} is published`, async () => void (await withdrawing.run()));
}
async function withdraw(): Promise<void> {
  if (await withdrawing.run()) notices.say('Withdrawn: its address answers nothing any more');
}
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(url.value);
  notices.say('Address copied');
}
</script>

<template>
  <v-card class="box">
    <h2>Published page</h2>
    <template v-if="animal.publication">
      <p>Open to everybody with the address since {{ momentDay(animal.publication.publishedAt) }}.</p>
      <p class="address small">
        <a :href="url" target="_blank" rel="noopener">{{ url }}</a>
      </p>
      <div class="row">
        <v-btn variant="outlined" @click="copy">Copy address</v-btn>
        <v-btn
          v-if="mayRecord"
          variant="outlined"
          color="error"
          :loading="withdrawing.busy.value"
          @click="withdraw"
          >Withdraw</v-btn
        >
      </div>
    </template>
    <p v-else class="small soft">
      A page without sign-in: pictures, number, sex, hatch date, weights, meals, lineage, and each claim with
      its reasons. Private notes and names of people never show.
    </p>
    <template v-if="mayRecord">
      <p v-if="!animal.publication && !isReady" class="small">
        Commonly listed after 3 to 5 meals in a row; so far {{ animal.appetite.inARow }}.
      </p>
      <v-textarea
        v-model="draft.text"
        label="Words for buyers, if any"
        rows="2"
        maxlength="2000"
        :error-messages="publishing.errorsOf('text')"
      />
      <v-alert
        v-if="publishing.general(['text'])"
        type="error"
        variant="tonal"
        density="compact"
        :icon="false"
        role="alert"
        >{{ publishing.message.value }}</v-alert
      >
      <div class="row">
        <v-btn
          :color="animal.publication ? undefined : 'primary'"
          :variant="animal.publication ? 'outlined' : 'flat'"
          :loading="publishing.busy.value"
          @click="publish"
          >{{ animal.publication ? 'Save words' : 'Publish' }}</v-btn
        >
      </div>
    </template>
  </v-card>
</template>

<style scoped>
.address {
  overflow-wrap: anywhere;
}
</style>
