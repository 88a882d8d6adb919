<script setup lang="ts">
import { FEMALE_GROUPS, type BoardFemale, type BoardMale } from '@karyotome/contract';
import { mdiCogOutline, mdiPlus } from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useDisplay } from 'vuetify';
import { useSeason, useSeasonFemales, useSeasonMales } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { api } from '../../api/resources.ts';
import MoreButton from '../../ui/MoreButton.vue';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import LayingDialog from './LayingDialog.vue';
import EventDialog from './EventDialog.vue';
import FemaleRow from './FemaleRow.vue';
import IntroduceDialog from './IntroduceDialog.vue';
import MaleList from './MaleList.vue';
import RulesDialog from './RulesDialog.vue';
import SeasonNav from './SeasonNav.vue';
import StoryDialog from './StoryDialog.vue';
import { GROUP_WORDS, introductionCautions, siresWords } from './season-words.ts';
import { useSeasonActs } from './useSeasonActs.ts';

const { data, status, error, refetch } = useSeason();
const females = useSeasonFemales();
const males = useSeasonMales();
const shownFemales = computed(() => (females.data.value ?? []).flatMap((part) => part.items));
const shownMales = computed(() => (males.data.value ?? []).flatMap((part) => part.items));
const total = (counts: Readonly<Record<string, number>>): number =>
  Object.values(counts).reduce((sum, count) => sum + count, 0);
const session = useSession();
const { smAndDown } = useDisplay();
const catalogue = useCatalogue();
const acts = useSeasonActs();
const groups = computed(() =>
  FEMALE_GROUPS.map((group) => ({
    group,
    title: GROUP_WORDS[group],
    count: data.value?.females[group] ?? 0,
    females: shownFemales.value.filter((female) => female.group === group),
  })).filter((one) => one.females.length > 0),
);
const carried = ref<BoardMale | null>(null);
const dragging = ref(false);
type Opened = 'event' | 'story' | 'lay' | 'choose-male';
const opened = ref<{ what: Opened; femaleId: string | null; maleId?: string } | null>(null);
const ruling = ref(false);
/** The board is read anew while a dialog is open: it shows the female as she is now, also where she left the page. */
const subject = computed<BoardFemale | null>((before) => {
  const id = opened.value?.femaleId ?? null;
  const known = before && before.id === id ? before : null;
  return shownFemales.value.find((female) => female.id === id) ?? known;
});
const maySetRules = computed(() => session.mayManage);
/** Where there are reasons against it, they are said before the two are together, not after. */
async function put(female: BoardFemale, maleId: string): Promise<void> {
  const male = shownMales.value.find(({ id }) => id === maleId)!;
  carried.value = null;
  const related = await api.relatedMates(maleId);
  if (introductionCautions(female, male, related, catalogue.value).length > 0)
    opened.value = { what: 'choose-male', femaleId: female.id, maleId };
  else await acts.introduce(female, male);
}
// On a phone the females stand above the males.
watch(carried, (male) => {
  if (male && smAndDown.value) window.scrollTo({ top: 0 });
});
function letGo(event: KeyboardEvent): void {
  if (event.key === 'Escape') carried.value = null;
}
useEventListener('keydown', letGo);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1 class="title">Season {{ data?.season }}</h1>
      <SeasonNav />
      <v-btn
        v-if="data"
        variant="text"
        :prepend-icon="mdiCogOutline"
        :disabled="!maySetRules"
        @click="ruling = true"
        >Rules</v-btn
      >
      <v-btn
        v-if="session.mayBreed"
        color="primary"
        :prepend-icon="mdiPlus"
        @click="opened = { what: 'choose-male', femaleId: null }"
        >Introduce</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data ? total(data.females) + total(data.males) === 0 : false"
      empty-title="Nobody is grown yet"
      empty-text="Females and males appear here once they are weighed and near the minimum weight, with reasons for and against breeding them. Two that you know to be ready can be introduced at once."
      @retry="refetch()"
    >
      <template #first>
        <v-btn color="primary" @click="opened = { what: 'choose-male', femaleId: null }">Introduce</v-btn>
        <v-btn to="/animals">To the animals</v-btn>
      </template>
      <v-card v-if="carried" color="surface-light" class="carrying" role="status">
        <span
          ><strong>{{ carried.number }}</strong> is in your hand: press “Put {{ carried.number }} here” at a
          female.</span
        >
        <v-btn variant="outlined" @click="carried = null">Let go</v-btn>
      </v-card>
      <div v-if="data" class="board" :class="{ dragging }">
        <div class="stack">
          <p v-if="groups.length === 0" class="soft">
            No female is near the minimum weight. Once weighed she appears here; two that you know to be ready
            can be introduced anyway.
          </p>
          <section v-for="group in groups" :key="group.group">
            <h2>
              {{ group.title }} <span class="soft small">{{ group.count }}</span>
            </h2>
            <v-card>
              <FemaleRow
                v-for="female in group.females"
                :key="female.id"
                :female="female"
                :may-breed="session.mayBreed"
                :carried="carried"
                @put="put(female, $event)"
                @note="(kind, sireId) => acts.note(female, kind, sireId)"
                @open="opened = { what: $event, femaleId: female.id }"
              />
            </v-card>
          </section>
          <MoreButton
            v-if="females.hasMore.value"
            :busy="females.asyncStatus.value === 'loading'"
            @more="females.more()"
          />
          <TableLink v-if="shownFemales.length > 0" list="seasonFemales" />
        </div>
        <aside>
          <h2>Males <span class="soft small">drag one to a female</span></h2>
          <MaleList
            v-model:carried="carried"
            v-model:dragging="dragging"
            :males="shownMales"
            :load="data.rules.maleLoad"
            :today="data.today"
            :may-breed="session.mayBreed"
          />
          <MoreButton
            v-if="males.hasMore.value"
            :busy="males.asyncStatus.value === 'loading'"
            @more="males.more()"
          />
          <TableLink v-if="shownMales.length > 0" list="seasonMales" />
        </aside>
      </div>
    </StateBlock>
    <template v-if="opened && data">
      <IntroduceDialog
        v-if="opened.what === 'choose-male'"
        :female-id="opened.femaleId"
        :male-id="opened.maleId ?? null"
        @close="opened = null"
      />
      <template v-if="subject?.pairing">
        <EventDialog
          v-if="opened.what === 'event'"
          :female="subject"
          :correcting="null"
          @close="opened = null"
        />
        <StoryDialog v-if="opened.what === 'story'" :female="subject" @close="opened = null" />
        <LayingDialog
          v-if="opened.what === 'lay'"
          :pairing-id="subject.pairing.id"
          :pair="`${subject.number} × ${siresWords(subject)}`"
          @close="opened = null"
        />
      </template>
    </template>
    <RulesDialog v-if="ruling && data" :board="data" @close="ruling = false" />
  </div>
</template>

<style scoped>
.place-head .title {
  margin-right: 8px;
}
.board {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 345px;
  align-items: start;
  gap: 16px;
}
.carrying {
  position: sticky;
  top: 68px;
  z-index: 3;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  margin-bottom: 12px;
  padding: 8px 14px;
}
h2 {
  margin-bottom: 6px;
}
aside {
  position: sticky;
  top: 72px;
  max-height: calc(100vh - 84px);
  overflow-y: auto;
}
@media (width < 900px) {
  .board {
    grid-template-columns: minmax(0, 1fr);
  }
  aside {
    position: static;
    max-height: none;
  }
}
</style>
