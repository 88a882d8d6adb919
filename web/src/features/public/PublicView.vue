<script setup lang="ts">
import { CLAIM_RULES, SEXING_WORDS, STATE_WORDS, supportWords } from '@karyotome/words';
import { watch } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../../api/resources.ts';
import { ageWords, dayWords, massWords, oddsWords, sexSign, sexWords } from '../../format/format.ts';
import { setUnits } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';
import { usePublished } from '../../stores/queries.ts';
import SureText from '../../ui/SureText.vue';
import SignedStatements from './SignedStatements.vue';
import PublicLineage from './PublicLineage.vue';
import WeightLine from './WeightLine.vue';

/** One animal as buyers see it, each claim with what it rests on. */
const route = useRoute();
const session = useSession();
const slug = (): string => String(route.params['slug']);
const { data, status, error } = usePublished(slug);
watch(data, (animal) => {
  if (!animal) return;
  document.title = `${animal.number} ${animal.label} · ${animal.collection}`;
  // A buyer has chosen no units: the breeder's hold.
  if (session.settings === null) setUnits(animal.units);
});
</script>

<template>
  <article class="place page">
    <v-progress-linear v-if="status === 'pending'" indeterminate color="primary" />
    <div v-else-if="status === 'error'" class="stack">
      <h1>This page is not here</h1>
      <p>{{ error?.message }}</p>
    </div>
    <template v-else-if="data">
      <p class="soft">{{ data.collection }}</p>
      <h1>
        {{ data.number }} <span :title="sexWords(data.sex)">{{ sexSign(data.sex) }}</span> {{ data.name }}
      </h1>
      <p class="label">{{ data.label }}</p>
      <div v-if="data.pictures.length" class="pictures">
        <figure v-for="picture in data.pictures" :key="picture.id">
          <img
            :src="api.publishedPictureUrl(slug(), picture.id)"
            :alt="picture.caption || `Picture of ${data.number}`"
          />
          <figcaption class="small soft">
            {{ picture.isDrawing ? 'Drawing. ' : '' }}{{ picture.caption }}
          </figcaption>
        </figure>
      </div>
      <p v-if="data.text" class="text">{{ data.text }}</p>
      <dl class="facts">
        <div>
          <dt>Sex</dt>
          <dd>
            {{ sexWords(data.sex) }}{{ ' '
            }}<span v-if="data.sexing" class="small soft">
              {{ SEXING_WORDS[data.sexing.method] }}, {{ data.sexing.sure }}</span
            >
          </dd>
        </div>
        <div>
          <dt>Hatched</dt>
          <dd>
            {{
              data.hatchedOn
                ? `${dayWords(data.hatchedOn)}, ${ageWords(data.hatchedOn, data.asOf)}`
                : 'not recorded'
            }}
          </dd>
        </div>
        <div>
          <dt>Weight</dt>
          <dd>
            {{
              data.weights.length
                ? `${massWords(data.weights.at(-1)!.massG)} on ${dayWords(data.weights.at(-1)!.on)}`
                : 'not recorded'
            }}
          </dd>
        </div>
        <div>
          <dt>Meals</dt>
          <dd>{{ data.feedings.filter((f) => f.taken).length }} of {{ data.feedings.length }} taken</dd>
        </div>
        <div>
          <dt>Sheds</dt>
          <dd>
            {{ data.sheds.length
            }}<template v-if="data.sheds.length"
              >, last {{ data.sheds.at(-1)!.complete === false ? 'in pieces' : 'whole' }} on
              {{ dayWords(data.sheds.at(-1)!.on) }}</template
            >
          </dd>
        </div>
      </dl>
      <section>
        <h2>What it is and carries, and what that rests on</h2>
        <p class="small soft">As of {{ dayWords(data.asOf) }}. When the records change, so does this page.</p>
        <div v-for="claim in data.claims" :key="claim.label" class="claim">
          <strong
            ><SureText :text="claim.label" :p="claim.p" :fraction="claim.kind === 'possible-carrier'"
          /></strong>
          <span class="num small">{{ claim.certain ? 'certain, as recorded' : oddsWords(claim.p) }}</span>
          <p class="small">
            {{ CLAIM_RULES[claim.rule] }}
            <template v-if="claim.support"
              ><span
                v-for="support in claim.support"
                :key="support.animal + support.label"
                class="support soft"
                >{{ support.animal }}, {{ dayWords(support.on) }}: {{ supportWords(support) }}</span
              ></template
            >
          </p>
        </div>
        <p v-if="data.claims.length === 0">No gene but wild type is claimed.</p>
        <v-alert
          v-for="caution in data.cautions"
          :key="caution"
          type="warning"
          variant="tonal"
          :icon="false"
          class="mt-2"
          >{{ caution }}</v-alert
        >
      </section>
      <section v-if="data.lineage.length">
        <h2>Parents and theirs</h2>
        <PublicLineage :kin="data.lineage" />
      </section>
      <section v-if="data.weights.length > 1">
        <h2>Weight</h2>
        <WeightLine :weights="data.weights" />
      </section>
      <section v-if="data.feedings.length">
        <h2>Feeding record</h2>
        <ul class="meals small">
          <li v-for="(meal, index) in data.feedings.toReversed().slice(0, 40)" :key="index">
            <span class="num">{{ dayWords(meal.on) }}</span> {{ meal.species }} {{ meal.size }},
            {{ STATE_WORDS[meal.state] }}: {{ meal.taken ? 'taken' : 'refused' }}
          </li>
        </ul>
        <p v-if="data.feedings.length > 40" class="small soft">
          The 40 latest of {{ data.feedings.length }}; all are in the download.
        </p>
      </section>
      <SignedStatements
        v-if="data.statements.length"
        :slug="slug()"
        :collection="data.collection"
        :statements="data.statements"
      />
      <p class="row">
        <v-btn :href="api.publishedDownloadUrl(slug())" variant="outlined"
          >Download the records as JSON</v-btn
        >
      </p>
      <p class="small soft">
        Ball pythons are in CITES Appendix II; many places license keeping, breeding or selling: local rules
        decide. Reptiles can carry Salmonella: wash hands.
      </p>
    </template>
  </article>
</template>

<style scoped>
.page {
  display: grid;
  gap: 18px;
  max-width: 820px;
}
.label {
  font-size: 1.2rem;
  font-weight: 560;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(320px, 100%), 1fr));
  gap: 12px;
}
figure {
  margin: 0;
}
img {
  width: 100%;
  max-height: 460px;
  object-fit: contain;
  background: rgb(var(--v-theme-surface-light));
  border-radius: 12px;
}
.text {
  white-space: pre-line;
}
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 10px 20px;
}
dt {
  font-size: 0.85rem;
  color: var(--soft);
}
dd {
  margin: 0;
}
section {
  display: grid;
  gap: 8px;
}
.claim {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 8px 0;
  border-top: 1px solid var(--hair);
}
.claim p {
  grid-column: 1 / -1;
}
.support {
  display: block;
}
.meals {
  padding: 0;
  columns: 2 280px;
  list-style: none;
}
.meals .num {
  display: inline-block;
  width: 92px;
}
</style>
