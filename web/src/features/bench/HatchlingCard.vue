<script setup lang="ts">
import type { HatchlingView, RecordKind } from '@karyotome/contract';
import { explainNumber } from '@karyotome/core';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { massWords, oddsWords, sexSign, sexWords } from '../../format/format.ts';
import { useSession } from '../../stores/session.ts';

/** One hatchling on the bench: what is recorded, and what still has to be. */
const props = defineProps<{ hatchling: HatchlingView; mayRecord: boolean }>();
defineEmits<{ act: [RecordKind] }>();
const session = useSession();
const valid = computed(() => props.hatchling.records.filter((record) => record.voided === null));
const identification = computed(() => valid.value.find((record) => record.kind === 'identification'));
const shed = computed(() =>
  valid.value.find((record) => record.kind === 'shed' && record.body.stage === 'shed'),
);
const meals = computed(() => valid.value.filter((record) => record.kind === 'feeding'));
const taken = computed(
  () => meals.value.filter((record) => record.kind === 'feeding' && record.body.taken).length,
);
const sire = computed(() =>
  props.hatchling.sires.length > 1 ? props.hatchling.sires.toSorted((a, b) => b.p - a.p)[0] : null,
);
const ACTS: { kind: RecordKind; title: string }[] = [
  { kind: 'sex', title: 'Sex' },
  { kind: 'weight', title: 'Weight' },
  { kind: 'shed', title: 'Shed' },
  { kind: 'feeding', title: 'Meal' },
  { kind: 'move', title: 'Tub' },
];
</script>

<template>
  <v-card class="card" :data-number="hatchling.number">
    <div class="row head">
      <router-link :to="`/animals/${hatchling.id}`" class="plain"
        ><h2 :title="explainNumber(hatchling.number) ?? undefined">{{ hatchling.number }}</h2></router-link
      >
      <span class="sex" :title="sexWords(hatchling.sex)">{{ sexSign(hatchling.sex) }}</span>
      <v-spacer />
      <img
        v-if="hatchling.pictureId"
        :src="api.pictureUrl(hatchling.pictureId)"
        :alt="`Picture of ${hatchling.number}`"
        class="thumb"
      />
    </div>
    <p class="label">
      <strong>{{ hatchling.label }}</strong>
      <span v-if="identification?.kind === 'identification'" class="small soft">
        {{ ' ' }}{{ identification.body.sure }}, by {{ identification.body.by }}</span
      >
    </p>
    <v-alert
      v-for="reason in hatchling.impossible"
      :key="reason"
      type="error"
      variant="tonal"
      density="compact"
      :icon="false"
      class="small"
    >
      The pairing cannot give this. {{ reason }}.
    </v-alert>
    <p v-if="sire" class="small">Sire {{ sire.number }}, {{ oddsWords(sire.p) }}</p>
    <dl class="facts small">
      <dt>Weight</dt>
      <dd class="num">
        {{
          hatchling.massG === null ? 'not weighed' : massWords(hatchling.massG, session.settings?.massUnit)
        }}
      </dd>
      <dt>First shed</dt>
      <dd class="num">
        {{ shed?.kind === 'shed' ? (shed.body.complete === false ? 'in pieces' : 'whole') : 'not yet' }}
      </dd>
      <dt>Meals</dt>
      <dd class="num">{{ taken }} of {{ meals.length }}</dd>
      <dt>Tub</dt>
      <dd class="num">
        {{ hatchling.tub ? `${hatchling.tub.rack} ${hatchling.tub.level}-${hatchling.tub.slot}` : 'none' }}
      </dd>
    </dl>
    <template v-if="mayRecord">
      <v-btn
        :color="hatchling.identified ? undefined : 'primary'"
        :variant="hatchling.identified ? 'outlined' : 'flat'"
        block
        @click="$emit('act', 'identification')"
      >
        {{ hatchling.identified ? 'Identify again' : 'Identify' }}
      </v-btn>
      <div class="acts">
        <v-btn
          v-for="act in ACTS"
          :key="act.kind"
          variant="text"
          size="small"
          @click="$emit('act', act.kind)"
          >{{ act.title }}</v-btn
        >
      </div>
    </template>
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  align-content: start;
  gap: 10px;
  padding: 14px;
}
.head {
  min-height: 44px;
}
.sex {
  font-size: 1.2rem;
  color: rgb(var(--v-theme-secondary));
}
.thumb {
  width: 56px;
  height: 44px;
  object-fit: cover;
  border-radius: 8px;
}
.label {
  min-height: 1.5em;
}
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin: 0;
}
.facts dd {
  margin: 0;
}
.acts {
  display: flex;
  justify-content: space-between;
}
.acts :deep(.v-btn) {
  min-width: 0;
  min-height: 44px;
  padding: 0 5px;
  letter-spacing: 0;
}
</style>
