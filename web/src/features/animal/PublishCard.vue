<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { tellGap } from '@karyotome/words';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCopy } from '../../stores/useCopy.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** What buyers see of this animal, and whether they see it. */
const props = defineProps<{ animal: AnimalView; maySell: boolean }>();
const notices = useNotices();
const copy = useCopy();
const publishing = useWrite(() => api.publish(props.animal.id));
const withdrawing = useWrite(() => api.withdraw(props.animal.id));
const url = computed(() =>
  props.animal.publication ? `${location.origin}/p/${props.animal.publication.slug}` : '',
);
async function publish(): Promise<void> {
  if (!(await publishing.run())) return;
  notices.say(`${props.animal.number} is published`, async () => void (await withdrawing.run()));
}
async function withdraw(): Promise<void> {
  if (await withdrawing.run()) notices.say('Withdrawn: its address answers nothing any more');
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
        <v-btn variant="outlined" @click="copy(url, 'Address copied')">Copy address</v-btn>
        <v-btn
          v-if="maySell"
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
    <template v-if="maySell && !animal.publication">
      <p v-if="animal.gaps.length" class="small">
        Buyers will miss: {{ animal.gaps.map((gap) => tellGap(gap, reader())).join(', ') }}.
      </p>
      <v-alert
        v-if="publishing.message.value"
        type="error"
        variant="tonal"
        density="compact"
        :icon="false"
        role="alert"
        >{{ publishing.message.value }}</v-alert
      >
      <div class="row">
        <v-btn color="primary" :loading="publishing.busy.value" @click="publish">Publish</v-btn>
      </div>
    </template>
  </v-card>
</template>

<style scoped>
.address {
  overflow-wrap: anywhere;
}
</style>
