<script setup lang="ts">
import { api } from '../../api/resources.ts';
import { momentDay, sexSign, statusWords } from '../../format/format.ts';
import { computed, ref } from 'vue';
import { useNotices } from '../../stores/notices.ts';
import { useShowcase } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import ShowcaseNav from './ShowcaseNav.vue';
import KeysDialog from './KeysDialog.vue';
import StatementState from './StatementState.vue';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';

const { data, status, error, refetch } = useShowcase();
const session = useSession();
const notices = useNotices();
/** The animals whose statements are being signed: one, or all that say something else by now. */
const signing = ref<readonly string[]>([]);
const showsKeys = ref(false);
const changed = computed(() =>
  (data.value ?? []).filter(({ changes, withheld }) => changes.length > 0 && withheld === null),
);
const issuing = useWrite(async (animals: readonly string[]) => {
  for (const id of animals) await api.issueStatement(id);
});
async function issue(animals: readonly string[]): Promise<void> {
  signing.value = animals;
  const done = await issuing.run(animals);
  signing.value = [];
  if (done) notices.say(animals.length === 1 ? 'Statement signed' : `${animals.length} statements signed`);
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Showcase</h1>
      <ShowcaseNav />
      <v-btn v-if="data?.length" variant="text" :href="`/c/${session.view?.pageName}`">Front page</v-btn>
      <TableLink v-if="data?.length" list="showcase" />
      <v-btn variant="text" @click="showsKeys = true">Key</v-btn>
      <v-btn variant="text" to="/verify">Verify a statement</v-btn>
    </div>
    <v-alert v-if="issuing.message.value" type="error" variant="tonal" :icon="false" role="alert">{{
      issuing.message.value
    }}</v-alert>
    <v-alert v-if="changed.length" type="warning" variant="tonal" :icon="false" class="mb-4">
      {{ changed.length === 1 ? 'One published animal says' : `${changed.length} published animals say` }}
      something else than what was signed.
      <template v-if="session.maySell && changed.length > 1" #append
        ><v-btn
          variant="outlined"
          :loading="signing.length > 1"
          @click="issue(changed.map(({ animal }) => animal.id))"
          >Sign them all anew</v-btn
        ></template
      >
    </v-alert>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="Nothing is published"
      empty-text="Publish an animal from its own page. What buyers see, with what each claim rests on, is listed here."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/animals">To the animals</v-btn></template>
      <div class="grid">
        <v-card v-for="line in data" :key="line.slug" class="card">
          <img
            v-if="line.animal.pictureId"
            :src="api.pictureUrl(line.animal.pictureId)"
            :alt="`Picture of ${line.animal.number}`"
          />
          <div class="text">
            <h2>{{ line.animal.number }} {{ sexSign(line.animal.sex) }} {{ line.animal.name }}</h2>
            <p>
              <strong>{{ line.animal.label }}</strong>
            </p>
            <p class="small soft">
              {{ statusWords(line.animal.status) }}, published {{ momentDay(line.publishedAt) }}
            </p>
            <StatementState
              :line="line"
              :may-issue="session.maySell"
              :busy="signing.includes(line.animal.id)"
              @issue="issue([line.animal.id])"
            />
            <div class="row">
              <v-btn variant="outlined" :href="`/p/${line.slug}`">As buyers see it</v-btn>
              <v-btn variant="text" :to="`/animals/${line.animal.id}`">The animal</v-btn>
              <v-btn
                v-if="line.statement"
                variant="text"
                :href="api.statementPackageUrl(line.animal.id)"
                download
                >Package</v-btn
              >
            </div>
          </div>
        </v-card>
      </div>
    </StateBlock>
    <KeysDialog v-if="showsKeys" @close="showsKeys = false" />
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 16px;
}
.card img {
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: cover;
}
.text {
  display: grid;
  gap: 8px;
  padding: 16px;
}
</style>
