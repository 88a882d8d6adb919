<script setup lang="ts">
import type { SaleLine, StatusEventView } from '@karyotome/contract';
import { tellLack } from '@karyotome/words';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords, moneyWords, sexSign, statusWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useSales, useSalesSettings } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import HandOverDialog from './HandOverDialog.vue';
import HistoryDialog from './HistoryDialog.vue';
import PricesDialog from './PricesDialog.vue';
import SaleRulesDialog from './SaleRulesDialog.vue';
import { saleDetail } from './sale-words.ts';
import SaleTotals from './SaleTotals.vue';
import ShowcaseNav from './ShowcaseNav.vue';
import StatusDialog from './StatusDialog.vue';
import { usePublishing } from './usePublishing.ts';
import { useStatusActs, type PlainKind } from './useStatusActs.ts';

/** Every animal on its way to a buyer: decide, offer, price and publish many at once. */
const { data, status, error, refetch } = useSales();
const { data: settings } = useSalesSettings();
const session = useSession();
const { decide, busy } = useStatusActs();
const publishing = usePublishing();
const FILTERS = ['for-sale', 'reserved', 'sold', 'undecided', 'held-back'] as const;
const wanted = ref<(typeof FILTERS)[number] | 'all'>('all');
const season = ref<number | null>(null);
const chosen = ref<readonly string[]>([]);
const dialog = ref<
  | {
      readonly is: 'status';
      readonly line: SaleLine;
      readonly kind: 'reserved' | 'sold';
      readonly event: StatusEventView | null;
    }
  | { readonly is: 'history' | 'hand-over'; readonly line: SaleLine }
  | { readonly is: 'prices' | 'rules' }
  | null
>(null);

/** The latest season first: those are decided upon now. */
const lines = computed(() => (data.value ?? []).toSorted((a, b) => (b.season ?? 0) - (a.season ?? 0)));
const countOf = (filter: string): number => lines.value.filter((line) => line.status === filter).length;
const seasons = computed(() =>
  [...new Set(lines.value.flatMap((line) => line.season ?? []))].toSorted((a, b) => b - a),
);
const shown = computed(() =>
  lines.value.filter(
    (line) =>
      (wanted.value === 'all' || line.status === wanted.value) &&
      (season.value === null || line.season === season.value),
  ),
);
const selected = computed(() => shown.value.filter(({ id }) => chosen.value.includes(id)));
const isAll = computed(() => shown.value.length > 0 && selected.value.length === shown.value.length);
function chooseAll(): void {
  chosen.value = isAll.value ? [] : shown.value.map(({ id }) => id);
}
function toggle(id: string): void {
  chosen.value = chosen.value.includes(id)
    ? chosen.value.filter((other) => other !== id)
    : [...chosen.value, id];
}
async function act(kind: PlainKind): Promise<void> {
  const numbers = selected.value.map(({ animal }) => animal.number);
  if (
    await decide(
      selected.value.map(({ id }) => id),
      kind,
      numbers,
    )
  )
    chosen.value = [];
}
const isOpen = ({ status: is }: SaleLine): boolean => is !== 'sold';
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Sales</h1>
      <ShowcaseNav />
      <v-btn variant="text" :href="api.salesTableUrl()" download>Download table</v-btn>
      <v-btn v-if="session.mayManage && settings" variant="text" @click="dialog = { is: 'rules' }"
        >Ready for sale…</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="lines.length === 0"
      empty-title="Nothing to sell yet"
      empty-text="Hatchlings appear here as soon as they leave their eggs. Decide upon a clutch at its desk, from the bench."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/bench">To the bench</v-btn></template>
      <div class="row mb-3">
        <v-chip-group v-model="wanted" mandatory column aria-label="Status">
          <v-chip value="all" filter>All {{ lines.length }}</v-chip>
          <v-chip v-for="filter in FILTERS" :key="filter" :value="filter" filter
            >{{ statusWords(filter) }} {{ countOf(filter) }}</v-chip
          >
        </v-chip-group>
        <v-spacer />
        <v-select
          v-model="season"
          label="Season"
          :items="[
            { value: null, title: 'All seasons' },
            ...seasons.map((year) => ({ value: year, title: String(year) })),
          ]"
          density="compact"
          hide-details
          class="season"
        />
      </div>
      <div v-if="selected.length" class="chosen-bar row" role="toolbar" aria-label="With those chosen">
        <strong>{{ selected.length }} chosen</strong>
        <v-btn variant="outlined" :loading="busy" @click="act('offered')">Offer for sale</v-btn>
        <v-btn variant="outlined" @click="dialog = { is: 'prices' }">Prices…</v-btn>
        <v-btn
          variant="outlined"
          :loading="publishing.done.value !== null"
          @click="publishing.publish(selected.map(({ animal }) => animal))"
          >Publish</v-btn
        >
        <v-btn variant="outlined" :loading="busy" @click="act('held-back')">Hold back</v-btn>
        <v-btn variant="outlined" :loading="busy" @click="act('undecided')">Undecided</v-btn>
        <span v-if="publishing.done.value !== null" class="small" role="status"
          >{{ publishing.done.value }} of {{ publishing.of.value }} published</span
        >
      </div>
      <v-card class="scroll">
        <table class="figures sales">
          <thead>
            <tr>
              <th scope="col">
                <v-checkbox-btn
                  :model-value="isAll"
                  aria-label="All that are shown"
                  @update:model-value="chooseAll"
                />
              </th>
              <th scope="col">Animal</th>
              <th scope="col">Status</th>
              <th scope="col" class="num">Price</th>
              <th scope="col">Missing to be ready</th>
              <th scope="col"><span class="d-sr-only">Acts</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in shown" :key="line.id">
              <td>
                <v-checkbox-btn
                  :model-value="chosen.includes(line.id)"
                  :aria-label="line.animal.number"
                  @update:model-value="toggle(line.id)"
                />
              </td>
              <td>
                <router-link :to="`/animals/${line.id}`" class="plain"
                  ><strong>{{ line.animal.number }}</strong> {{ sexSign(line.animal.sex) }}
                  {{ line.animal.name }}</router-link
                >
                <div class="small soft">{{ line.animal.label }}</div>
              </td>
              <td>
                {{ statusWords(line.status) }}
                <span v-if="line.event" class="small soft">{{ dayWords(line.event.on) }}</span>
                <div class="small">{{ saleDetail(line) }}</div>
              </td>
              <td class="num">
                {{ line.offer.price === null ? '' : moneyWords(line.offer.price, line.offer.currency) }}
                <div v-if="line.slug" class="small">
                  <a :href="`/p/${line.slug}`">page</a>
                </div>
              </td>
              <td class="small">
                <template v-if="isOpen(line)">
                  <span v-if="line.lacks.length === 0" class="ready">ready</span>
                  <span v-for="lack in line.lacks" v-else :key="lack.code" class="lack">{{
                    tellLack(lack, reader())
                  }}</span>
                </template>
              </td>
              <td class="acts">
                <template v-if="isOpen(line)">
                  <v-btn
                    size="small"
                    variant="outlined"
                    @click="dialog = { is: 'status', line, kind: 'reserved', event: null }"
                    >Reserve…</v-btn
                  >
                  <v-btn
                    size="small"
                    variant="outlined"
                    @click="
                      dialog = {
                        is: 'status',
                        line,
                        kind: 'sold',
                        event: line.event?.kind === 'reserved' ? line.event : null,
                      }
                    "
                    >Sell…</v-btn
                  >
                </template>
                <v-btn size="small" variant="text" @click="dialog = { is: 'history', line }">History</v-btn>
              </td>
            </tr>
          </tbody>
        </table>
      </v-card>
      <SaleTotals :lines="lines" />
    </StateBlock>
    <StatusDialog
      v-if="dialog?.is === 'status'"
      :animal="dialog.line.animal"
      :kind="dialog.kind"
      :offer="dialog.line.offer"
      :event="dialog.event"
      @close="dialog = null"
    />
    <HistoryDialog
      v-if="dialog?.is === 'history'"
      :animal="dialog.line.animal"
      :currency="dialog.line.offer.currency"
      @correct="
        dialog = {
          is: 'status',
          line: dialog.line,
          kind: $event.kind === 'reserved' ? 'reserved' : 'sold',
          event: $event,
        }
      "
      @hand-over="dialog = { is: 'hand-over', line: dialog.line }"
      @close="dialog = null"
    />
    <HandOverDialog
      v-if="dialog?.is === 'hand-over'"
      :animal="dialog.line.animal"
      :collection="session.settings?.name ?? ''"
      @close="dialog = null"
    />
    <PricesDialog v-if="dialog?.is === 'prices'" :lines="selected" @close="dialog = null" />
    <SaleRulesDialog v-if="dialog?.is === 'rules' && settings" :settings="settings" @close="dialog = null" />
  </div>
</template>

<style scoped>
.season {
  max-width: 170px;
}
.sales td:first-child,
.sales th:first-child {
  width: 48px;
  padding-left: 8px;
}
.sales td {
  vertical-align: top;
}
.sales td .v-selection-control {
  min-height: 28px;
}
.acts {
  white-space: nowrap;
}
.acts .v-btn + .v-btn {
  margin-left: 6px;
}
.lack {
  display: block;
}
.ready {
  font-weight: 560;
  color: rgb(var(--v-theme-success));
}
@media (width < 760px) {
  .sales thead {
    display: none;
  }
  .sales tr {
    display: grid;
    grid-template-columns: 44px 1fr auto;
    padding: 8px 10px;
    border-top: 1px solid var(--hair);
  }
  .sales td {
    padding: 2px 0;
    border: 0;
  }
  .sales td:nth-child(n + 3) {
    grid-column: 2 / -1;
  }
}
</style>
