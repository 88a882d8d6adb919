<script setup lang="ts">
import type { WishView } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords, farmToday, moneyWords, oddsWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { usePairingWaits, useWishes } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import ShowcaseNav from './ShowcaseNav.vue';
import WishDialog from './WishDialog.vue';

/** Who waits for what, in order; and what is to come for them. */
const { data, status, error, refetch } = useWishes();
const { data: pairings } = usePairingWaits();
const notices = useNotices();
const editing = ref<{ wish: WishView | null } | null>(null);
const offering = useWrite(api.offerToFirst);
const answering = useWrite(api.answerOffer);
const closing = useWrite(api.closeWish);
/** A week to answer. Common practice, no source. */
const ANSWER_DAYS = 7;
const coming = computed(() => (pairings.value ?? []).filter(({ waiting }) => waiting > 0));
const openOffer = ({ offers }: WishView) => offers.find(({ answer }) => answer === null);
/** An animal goes to the first whom it fits, so it is offered from the list of whoever that is. */
function isFirst(wish: WishView, animalId: string): boolean {
  const first = data.value?.find(({ fits }) => fits.some((fit) => fit.animalId === animalId));
  return first?.id === wish.id;
}
async function offer(animalId: string, number: string): Promise<void> {
  const until = addDays(farmToday(), ANSWER_DAYS);
  if (await offering.run({ animalId, until }))
    notices.say(`${number} is offered until ${dayWords(until)}. The letter is drafted under Letters.`);
  else notices.warn(offering.message.value ?? 'It could not be offered');
}
async function answer(id: string, said: 'accepted' | 'declined'): Promise<void> {
  if (await answering.run(id, { answer: said }))
    notices.say(said === 'accepted' ? 'Reserved' : 'Declined: the next who waits is asked');
  else notices.warn(answering.message.value ?? 'It could not be recorded');
}
async function close(wish: WishView): Promise<void> {
  if (await closing.run(wish.id)) notices.say(`${wish.person.name ?? ''} waits no more for ${wish.must}`);
  else notices.warn(closing.message.value ?? 'It could not be changed');
}
const limits = ({ mustNot, sex, priceLimit, currency, pairing }: WishView): string =>
  [
    sex,
    mustNot ? `not ${mustNot}` : null,
    priceLimit === null
      ? null
      : `up to ${currency ? moneyWords(priceLimit, currency) : reader().number(priceLimit, 2)}`,
    pairing ? `from ${pairing.name}` : null,
  ]
    .filter(Boolean)
    .join(', ');
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Waiting list</h1>
      <ShowcaseNav />
      <TableLink list="wishes" />
      <v-btn color="primary" @click="editing = { wish: null }">Somebody waits…</v-btn>
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="Nobody waits"
      empty-text="Enter who asked for what. Each animal that fits is offered to the first in the list; declined or unanswered it goes to the next."
      @retry="refetch()"
    >
      <template #first
        ><v-btn color="primary" @click="editing = { wish: null }">Somebody waits…</v-btn></template
      >
      <div class="stack">
        <v-card v-for="(wish, index) in data" :key="wish.id" class="wish">
          <span class="num place-in-list">{{ index + 1 }}</span>
          <div>
            <p>
              <strong>{{ wish.person.name }}</strong> waits for <strong>{{ wish.must }}</strong><template
                v-if="limits(wish)"
                >, {{ limits(wish) }}</template
              >
            </p>
            <p class="small soft">
              since {{ dayWords(wish.joinedOn)
              }}<template v-if="!wish.person.hasAgreed">, has not agreed to be written to</template>
              <template v-if="wish.note">. {{ wish.note }}</template>
            </p>
            <div v-if="openOffer(wish)" class="row">
              <span
                >{{ openOffer(wish)!.number }} is offered until {{ dayWords(openOffer(wish)!.until) }}</span
              >
              <v-btn size="small" color="primary" @click="answer(openOffer(wish)!.id, 'accepted')"
                >Accepted</v-btn
              >
              <v-btn size="small" variant="outlined" @click="answer(openOffer(wish)!.id, 'declined')"
                >Declined</v-btn
              >
            </div>
            <div v-else-if="wish.fits.length" class="row">
              <template v-for="fit in wish.fits" :key="fit.animalId">
                <router-link :to="`/animals/${fit.animalId}`">{{ fit.number }}</router-link>
                <span class="small">{{ oddsWords(fit.p) }}</span>
                <v-btn
                  v-if="isFirst(wish, fit.animalId)"
                  size="small"
                  variant="outlined"
                  :loading="offering.busy.value"
                  @click="offer(fit.animalId, fit.number)"
                  >Offer</v-btn
                >
              </template>
            </div>
            <p v-else class="small soft">Nothing here fits now.</p>
          </div>
          <div class="row">
            <v-btn size="small" variant="text" @click="editing = { wish }">Change</v-btn>
            <v-btn size="small" variant="text" @click="close(wish)">Waits no more</v-btn>
          </div>
        </v-card>
      </div>
      <v-card v-if="coming.length" class="coming">
        <h2>What is to come for them</h2>
        <p v-for="line in coming" :key="line.id">
          {{ line.season }}: {{ line.name }} gives
          <strong>{{ reader().number(line.expected, 1) }}</strong> expected for {{ line.waiting }} who
          {{ line.waiting === 1 ? 'waits' : 'wait' }}
          <span class="small soft">of about {{ reader().number(line.young, 1) }} young</span>
        </p>
      </v-card>
    </StateBlock>
    <WishDialog v-if="editing" :wish="editing.wish" @close="editing = null" />
  </div>
</template>

<style scoped>
.wish {
  display: grid;
  grid-template-columns: 32px 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 12px 16px;
}
.place-in-list {
  font-weight: 700;
}
.coming {
  display: grid;
  gap: 6px;
  margin-top: 16px;
  padding: 16px;
}
@media (width < 600px) {
  .wish {
    grid-template-columns: 28px 1fr;
  }
}
</style>
