<script setup lang="ts">
import type { NewRecord, RecordKind, TodayLine } from '@karyotome/contract';
import type { CareAct } from '@karyotome/core';
import { moveReasonWords, taskWords } from '@karyotome/words';
import { computed, defineAsyncComponent } from 'vue';
import { useRouter } from 'vue-router';
import { farmToday, sexSign } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';
import WhyPanel from '../../ui/WhyPanel.vue';
import { useQuickRecord } from '../records/useQuickRecord.ts';
import type { RecordSubject } from '../records/useRecordForm.ts';

// Fetched when it is first opened.
const OtherMeals = defineAsyncComponent(() => import('./OtherMeals.vue'));

/** One thing to do, doable on the spot. */
const props = defineProps<{ line: TodayLine; mayRecord: boolean }>();
const emit = defineEmits<{ record: [RecordSubject]; heat: [NonNullable<TodayLine['zone']>] }>();
const OPENS: readonly TodayLine['kind'][] = ['season', 'stock', 'concern', 'settle'];
const session = useSession();
const router = useRouter();
const quick = useQuickRecord();
const KIND: Partial<Record<TodayLine['kind'], RecordKind>> = {
  weigh: 'weight',
  shed: 'shed',
  'first-shed': 'shed',
  sex: 'sex',
  identify: 'identification',
  move: 'move',
};
const VERBS: Partial<Record<TodayLine['kind'], string>> = {
  weigh: 'Weigh',
  shed: 'Shed…',
  'first-shed': 'Shed…',
  sex: 'Sex…',
  identify: 'Identify…',
  move: 'Move…',
};
/** Eggs have their own page; young stand on the bench. */
const home = computed(() => {
  const { animal, clutch, incubator, room, kind } = props.line;
  if (kind === 'season') return '/season';
  if (kind === 'stock') return '/today/feeding';
  if (kind === 'heat') return '/racks';
  if (kind === 'identify' && animal?.clutchId) return `/bench/${animal.clutchId}?one=${animal.id}`;
  if (animal) return `/animals/${animal.id}`;
  if (clutch) return kind === 'eggs' ? `/season/clutches/${clutch.id}` : `/bench/${clutch.id}`;
  if (room) return '/racks/climate';
  return incubator ? '/season/incubators' : '/today';
});
const subject = computed(() => {
  const { animal, clutch, incubator, room, zone, kind } = props.line;
  if (zone) return `${zone.rack}, ${zone.name}`;
  if (kind === 'stock') return 'Freezer';
  return animal?.number ?? (clutch ? `Clutch ${clutch.name}` : ((incubator ?? room)?.name ?? ''));
});
const place = computed(() => {
  const tub = props.line.animal?.tub;
  return tub ? `${tub.level}-${tub.slot}` : '';
});

async function meal(taken: boolean): Promise<void> {
  const { species, size, state, step } = props.line.preset!;
  const body = { species, size, state, taken, ...(step ? { step } : {}) };
  await record(
    { kind: 'feeding', on: farmToday(), body },
    `${species} ${size} ${taken ? 'taken' : 'refused'}`,
  );
}
const care = (act: CareAct, text: string): Promise<void> =>
  record({ kind: 'care', on: farmToday(), body: { act } }, text);
const record = (what: NewRecord, text: string): Promise<void> => quick.log(props.line.animal!, what, text);
/** After a bad shed the skin is soaked; a shed that goes on is looked at. */
const isSoak = computed(() => props.line.code === 'soak-due' || props.line.code === 'retained-shed');
const told = computed(() => taskWords(props.line, reader()));
const reasons = computed(() =>
  (props.line.advice?.reasons ?? []).map((reason) => ({
    ...reason,
    words: moveReasonWords(reason, reader()),
  })),
);
/** Keys of the line that has the focus. */
function onKey(event: KeyboardEvent): void {
  if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey) return;
  const key = event.key.toLowerCase();
  const isMeal = props.mayRecord && props.line.preset !== null && !quick.busy.value;
  if (isMeal && (key === 't' || key === 'r')) void meal(key === 't');
  if (key === 'enter') void router.push(home.value);
}
function open(kind: RecordKind): void {
  // What hatched here is looked at on its clutch's table.
  if (kind === 'identification' && props.line.animal?.clutchId) return void router.push(home.value);
  const { animal, advice, preset } = props.line;
  const isAdvised = advice?.verdict === 'move-up' || advice?.verdict === 'go-back';
  const tub = isAdvised ? advice.freeTubs[0] : undefined;
  emit('record', {
    animalId: animal!.id,
    number: animal!.number,
    kind,
    prey: preset,
    ...(kind === 'move' && tub ? { begin: { toTubId: tub.tubId, reason: told.value.text } } : {}),
  });
}
</script>

<template>
  <div
    class="line"
    :class="line.kind"
    tabindex="0"
    role="group"
    :aria-label="`${subject}: ${told.text}`"
    @keydown="onKey"
  >
    <span class="tub num soft">{{ place }}</span>
    <router-link v-if="line.animal" :to="`/animals/${line.animal.id}`" class="who plain">
      <strong
        >{{ line.animal.number }} <span :title="line.animal.sex">{{ sexSign(line.animal.sex) }}</span></strong
      >
      <span class="soft small label">{{ line.animal.label }}</span>
    </router-link>
    <router-link v-else :to="home" class="who plain">
      <strong>{{ subject }}</strong>
    </router-link>
    <span class="what">{{ told.text }}</span>
    <WhyPanel :title="told.text">
      <template v-if="line.advice">
        <p v-for="reason in reasons" :key="reason.code">
          <strong>{{ reason.side === 'for' ? 'For' : 'Against' }}:</strong> {{ reason.words.text }}.
          <span class="soft small">{{ reason.words.rule }}</span>
        </p>
      </template>
      <p v-else>{{ told.why }}</p>
      <p v-if="line.animal">
        <router-link :to="`/animals/${line.animal.id}#record`"
          >The records of {{ line.animal.number }}</router-link
        >
      </p>
    </WhyPanel>
    <span class="acts">
      <template v-if="mayRecord && line.kind === 'meal' && line.preset">
        <v-btn color="primary" variant="flat" :loading="quick.busy.value" @click="meal(true)">Taken</v-btn>
        <v-btn variant="outlined" :disabled="quick.busy.value" @click="meal(false)">Refused</v-btn>
        <v-menu>
          <template #activator="{ props: activator }">
            <v-btn v-bind="activator" variant="text" :aria-label="`${subject}: another meal, or none`"
              >Other…</v-btn
            >
          </template>
          <OtherMeals
            @meal="open('feeding')"
            @not-offered="care('not-offered', 'not offered')"
            @regurgitated="care('regurgitated', 'regurgitated')"
          />
        </v-menu>
      </template>
      <template v-else-if="mayRecord && isSoak">
        <v-btn variant="outlined" :disabled="quick.busy.value" @click="care('soaked', 'soaked')"
          >Soaked</v-btn
        >
        <v-btn variant="outlined" :disabled="quick.busy.value" @click="care('caps-checked', 'all off now')"
          >All off</v-btn
        >
      </template>
      <v-btn
        v-else-if="mayRecord && line.kind === 'clean'"
        variant="outlined"
        :loading="quick.busy.value"
        @click="care('cleaned', 'tub cleaned')"
        >Cleaned</v-btn
      >
      <v-btn v-else-if="mayRecord && line.zone" variant="outlined" @click="emit('heat', line.zone)"
        >Check…</v-btn
      >
      <v-btn
        v-else-if="line.clutch || line.incubator || line.room || OPENS.includes(line.kind)"
        variant="outlined"
        :to="home"
        >Open</v-btn
      >
      <v-btn
        v-else-if="KIND[line.kind] && session.mayEnter(KIND[line.kind]!)"
        variant="outlined"
        @click="open(KIND[line.kind]!)"
        >{{ VERBS[line.kind] }}</v-btn
      >
    </span>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 44px minmax(150px, 1.3fr) minmax(150px, 1fr) 88px 300px;
  align-items: center;
  gap: 4px 12px;
  padding: 8px 16px;
  /* What is out of sight is neither laid out nor painted, however long the list is. */
  content-visibility: auto;
  contain-intrinsic-size: auto 62px;
}
.line:focus-visible {
  outline: 2px solid rgb(var(--v-theme-primary));
  outline-offset: -2px;
}
.line + .line {
  border-top: 1px solid var(--hair);
}
.who {
  min-width: 0;
}
.label {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.acts {
  display: flex;
  justify-content: flex-end;
  gap: 6px;
}
.move .what,
.concern .what,
.shed .what {
  font-weight: 600;
}
@media (width < 760px) {
  .line {
    grid-template-columns: 34px 1fr auto;
    padding: 10px 12px;
    contain-intrinsic-size: auto 138px;
  }
  .what {
    grid-column: 2 / 3;
    grid-row: 2;
  }
  .acts {
    grid-column: 1 / -1;
    justify-content: flex-start;
    padding-left: 46px;
  }
  .acts :deep(.v-btn) {
    min-height: 44px;
  }
}
</style>
