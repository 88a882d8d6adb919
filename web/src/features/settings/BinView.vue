<script setup lang="ts">
import { BIN_DAYS, type BinEntry, type BinKind } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { countWords, dayWords, momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useBin } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import ConfirmDialog from '../../ui/ConfirmDialog.vue';
import LineCard from '../../ui/LineCard.vue';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';

/** What was deleted, and can be restored or erased at once. */
const notices = useNotices();
const { data: entries, status, error, refetch } = useBin();
const restoring = useWrite(api.restoreFromBin);
const erasing = useWrite(api.eraseFromBin);
const ending = ref<BinEntry | null>(null);

const TITLES: Readonly<Record<BinKind, (number: string) => string>> = {
  animal: (number) => number,
  picture: (number) => `Picture of ${number}`,
  pairing: (number) => `Pairing of ${number}`,
  rack: (number) => `Rack ${number}`,
  'heat-zone': (number) => `Heat zone of ${number}`,
};
const titleOf = ({ kind, number, name }: BinEntry): string =>
  [TITLES[kind](number), name].filter((part) => part).join(', ');
const aboutOf = ({ kind, reason, by, deletedAt, erasedOn, records, pictures }: BinEntry): string =>
  [
    ...(reason ? [`“${reason}”`] : []),
    ...(kind === 'animal'
      ? [`${countWords(records, 'record', 'records')}, ${countWords(pictures, 'picture', 'pictures')}`]
      : []),
    `deleted by ${by} on ${momentDay(deletedAt)}`,
    `erased on ${dayWords(erasedOn)}`,
  ].join(' · ');

async function restore(entry: BinEntry): Promise<void> {
  const restored = await restoring.run(entry.id);
  if (!restored) notices.warn(restoring.message.value ?? 'It could not be restored');
  else
    notices.say(
      restored.value.isWithoutPlace
        ? `${titleOf(entry)} is back, without a tub: its own is taken or gone`
        : `${titleOf(entry)} is back`,
    );
}
async function erase(entry: BinEntry): Promise<void> {
  ending.value = null;
  if (await erasing.run(entry.id)) notices.say(`${titleOf(entry)} is erased`);
  else notices.warn(erasing.message.value ?? 'It could not be erased');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Deleted</h1>
      <router-link to="/settings" class="small">Settings</router-link>
      <TableLink v-if="entries?.length" list="bin" />
    </div>
    <p class="soft intro">
      Animals, pictures, pairings, racks and heat zones that were deleted. They can be restored for
      {{ BIN_DAYS }} days, as they were; then their records and files are erased. Backups made before keep
      them as long as they are kept themselves.
    </p>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="entries?.length === 0"
      empty-title="Nothing here"
      empty-text="Nothing was deleted lately."
      @retry="refetch()"
    >
      <div class="lines">
        <LineCard v-for="entry in entries" :key="entry.id" :title="titleOf(entry)" :about="aboutOf(entry)">
          <div class="acts">
            <v-btn variant="outlined" :aria-label="`Restore ${titleOf(entry)}`" @click="restore(entry)"
              >Restore</v-btn
            >
            <v-btn variant="text" :aria-label="`Erase ${titleOf(entry)}`" @click="ending = entry"
              >Erase</v-btn
            >
          </div>
        </LineCard>
      </div>
    </StateBlock>
    <ConfirmDialog
      v-if="ending"
      :title="`Erase ${titleOf(ending)} for good?`"
      submit-text="Erase"
      @close="ending = null"
      @confirm="erase(ending)"
    >
      Its records and files are gone at once, and nobody can bring them back. The history keeps that it was
      there and who deleted it.
    </ConfirmDialog>
  </div>
</template>

<style scoped>
.intro {
  max-width: 70ch;
  margin-bottom: 16px;
}
.lines {
  display: grid;
  gap: 8px;
  max-width: 860px;
}
.acts {
  display: flex;
  gap: 4px;
}
</style>
