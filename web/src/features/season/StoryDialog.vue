<script setup lang="ts">
import type { BoardFemale, SeasonEventView } from '@karyotome/contract';
import { waitWords } from '@karyotome/words';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { agoWords, dayWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import EventDialog from './EventDialog.vue';
import FathersForm from './FathersForm.vue';
import { basisWords, EVENT_WORDS, latestFirst, spanWords } from './season-words.ts';

/** A female's season from its beginning, each thing correctable; and who may be the father of her eggs. */
const props = defineProps<{ female: BoardFemale }>();
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const voiding = useWrite(api.voidSeasonEvent);
const correcting = ref<SeasonEventView | null>(null);
const numberOf = (id: string | null): string =>
  props.female.pairing!.sires.find((sire) => sire.id === id)?.number ?? '';
async function takeBack(event: SeasonEventView): Promise<void> {
  if (await voiding.run(event.id, 'Taken back')) notices.say(`${EVENT_WORDS[event.kind]} taken back`);
  else notices.warn(voiding.message.value ?? 'It could not be taken back');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="740" @update:model-value="emit('close')">
    <v-card :title="`The season of ${female.number}`" :subtitle="female.label">
      <v-card-text class="stack">
        <section v-if="female.pairing!.forecast.expected.length > 0">
          <p v-for="one in female.pairing!.forecast.expected" :key="one.what">
            <strong>{{ waitWords(one) }}</strong>: {{ spanWords(one) }}.
            <span class="small soft">{{ basisWords(one) }}</span>
          </p>
        </section>
        <section>
          <h3>What happened</h3>
          <p v-if="female.pairing!.events.length === 0" class="soft">Nothing is noted.</p>
          <div v-for="event in latestFirst(female.pairing!.events)" :key="event.id" class="event">
            <span
              ><strong>{{ EVENT_WORDS[event.kind] }}</strong> {{ numberOf(event.sireId) }}
              <span v-if="event.note" class="small soft">{{ event.note }}</span></span
            >
            <span class="small">{{ dayWords(event.on) }}, {{ agoWords(event.on) }}</span>
            <span class="small soft">{{ event.author }}</span>
            <span v-if="session.mayBreed" class="acts">
              <v-btn size="small" variant="text" @click="correcting = event">Correct…</v-btn>
              <v-btn size="small" variant="text" :loading="voiding.busy.value" @click="takeBack(event)"
                >Take back</v-btn
              >
            </span>
          </div>
        </section>
        <FathersForm :key="female.pairing!.version" :female="female" />
      </v-card-text>
      <v-card-actions><v-spacer /><v-btn @click="emit('close')">Close</v-btn></v-card-actions>
    </v-card>
    <EventDialog v-if="correcting" :female="female" :correcting="correcting" @close="correcting = null" />
  </v-dialog>
</template>

<style scoped>
.event {
  display: grid;
  grid-template-columns: 1fr 170px auto auto;
  align-items: center;
  gap: 2px 12px;
  min-height: 40px;
}
.event + .event {
  border-top: 1px solid var(--hair);
}
.acts {
  white-space: nowrap;
}
@media (width < 600px) {
  .event {
    grid-template-columns: 1fr;
    padding: 6px 0;
  }
}
</style>
