<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { isGone, type StatusEventView } from '@karyotome/contract';
import { mayFollow, STATUS_AFTER } from '@karyotome/core';
import { tellLack } from '@karyotome/words';
import { computed, defineAsyncComponent, ref } from 'vue';
import { moneyWords, statusWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useOffer } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useStatusActs, type PlainKind } from '../showcase/useStatusActs.ts';

// Fetched when the first is opened.
const HandOverDialog = defineAsyncComponent(() => import('../showcase/HandOverDialog.vue'));
const HistoryDialog = defineAsyncComponent(() => import('../showcase/HistoryDialog.vue'));
const OfferDialog = defineAsyncComponent(() => import('../showcase/OfferDialog.vue'));
const StatusDialog = defineAsyncComponent(() => import('../showcase/StatusDialog.vue'));

/** Where an animal stands between hatching and its next keeper, and what can happen next. */
const props = defineProps<{ animal: AnimalView }>();
const { data: offer } = useOffer(() => props.animal.id);
const session = useSession();
const { decide, busy } = useStatusActs();
const TITLES: readonly (readonly [PlainKind, string])[] = [
  ['offered', 'Offer for sale'],
  ['held-back', 'Hold back'],
  ['breeder', 'Keep as breeder'],
  ['withdrawn', 'Take off sale'],
  ['gone-back', 'It came back'],
  ['undecided', 'Undecided'],
  ['died', 'It died'],
  ['mistaken', 'Entered by mistake'],
];
const possible = computed(() =>
  TITLES.filter(([kind]) => {
    const { status } = props.animal;
    const isNow = STATUS_AFTER[kind] === status;
    // What has an act of its own word needs no other one beside it.
    const isDouble =
      kind === 'undecided' && (mayFollow('withdrawn', status) || mayFollow('gone-back', status));
    return !isNow && !isDouble && mayFollow(kind, status);
  }),
);
const dialog = ref<
  | { readonly is: 'status'; readonly kind: 'reserved' | 'sold'; readonly event: StatusEventView | null }
  | { readonly is: 'history' | 'offer' | 'hand-over' }
  | null
>(null);
const isSellable = computed(() => mayFollow('sold', props.animal.status));
</script>

<template>
  <v-card class="box">
    <h2>Status and sale</h2>
    <p>
      <strong>{{ statusWords(animal.status) }}</strong>
      <template v-if="offer?.price != null">, {{ moneyWords(offer.price, offer.currency) }}</template>
    </p>
    <p v-if="!isGone(animal) && animal.status !== 'breeder'" class="small">
      <strong v-if="animal.lacks.length === 0">Ready for sale.</strong>
      <template v-else
        >Not ready for sale: {{ animal.lacks.map((lack) => tellLack(lack, reader())).join('; ') }}.</template
      >
    </p>
    <div class="row">
      <v-btn
        v-if="isSellable"
        variant="outlined"
        @click="dialog = { is: 'status', kind: 'reserved', event: null }"
        >Reserve…</v-btn
      >
      <v-btn
        v-if="isSellable"
        variant="outlined"
        @click="dialog = { is: 'status', kind: 'sold', event: null }"
        >Sell…</v-btn
      >
      <v-menu>
        <template #activator="{ props: opener }">
          <v-btn variant="outlined" v-bind="opener" :loading="busy">Change status</v-btn>
        </template>
        <v-list>
          <v-list-item
            v-for="[kind, title] in possible"
            :key="kind"
            :title="title"
            @click="decide([animal.id], kind, [animal.number])"
          />
        </v-list>
      </v-menu>
      <v-btn variant="text" @click="dialog = { is: 'history' }">History</v-btn>
    </div>
    <div v-if="offer" class="row">
      <v-btn variant="text" @click="dialog = { is: 'offer' }">Price, words, pictures…</v-btn>
    </div>
    <template v-if="offer">
      <StatusDialog
        v-if="dialog?.is === 'status'"
        :animal="animal"
        :kind="dialog.kind"
        :offer="offer"
        :event="dialog.event"
        @close="dialog = null"
      />
      <HistoryDialog
        v-if="dialog?.is === 'history'"
        :animal="animal"
        :currency="offer.currency"
        @correct="
          dialog = { is: 'status', kind: $event.kind === 'reserved' ? 'reserved' : 'sold', event: $event }
        "
        @hand-over="dialog = { is: 'hand-over' }"
        @close="dialog = null"
      />
      <HandOverDialog
        v-if="dialog?.is === 'hand-over'"
        :animal="animal"
        :collection="session.settings?.name ?? ''"
        @close="dialog = null"
      />
      <OfferDialog v-if="dialog?.is === 'offer'" :animal="animal" :offer="offer" @close="dialog = null" />
    </template>
  </v-card>
</template>
