<script setup lang="ts">
import type { ShowcaseLine } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { tellStatedFacts } from '@karyotome/words';
import { dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import AmendmentReasons from './AmendmentReasons.vue';

/** What is signed of an animal, and what the records say otherwise by now. */
const props = defineProps<{ line: ShowcaseLine; mayIssue: boolean; busy: boolean }>();
defineEmits<{ issue: [] }>();
const notices = useNotices();
const isAsking = ref(false);
const isWithholding = ref(false);
const reason = ref('');
const withholding = useWrite((text: string) => api.withholdAmendment(props.line.animal.id, text));
async function withhold(): Promise<void> {
  if (!(await withholding.run(reason.value))) return;
  isWithholding.value = false;
  notices.say('Kept with the animal: it is asked again when the records change');
}
</script>

<template>
  <div class="state">
    <p v-if="line.statement" class="small soft">
      Statement {{ line.statement.statement }}, signed as of {{ dayWords(line.statement.asOf) }}
    </p>
    <p v-else class="small soft">Not signed yet</p>
    <v-alert
      v-if="line.changes.length"
      :type="line.withheld ? 'info' : 'warning'"
      variant="tonal"
      :icon="false"
      density="compact"
    >
      <p v-for="change in line.changes" :key="change.locus">
        Signed: {{ change.from ?? 'not claimed' }}. The records now:
        <strong>{{ change.to ?? 'not claimed' }}</strong>.
      </p>
      <AmendmentReasons v-if="isAsking" :animal-id="line.animal.id" />
      <p v-if="line.withheld" class="small">Not signed: {{ line.withheld }}</p>
    </v-alert>
    <p v-if="line.facts.length" class="small">{{ tellStatedFacts(line.facts, reader()) }}</p>
    <div v-if="mayIssue && (line.changes.length || line.facts.length || !line.statement)" class="row">
      <v-btn
        color="primary"
        :variant="line.withheld || !line.changes.length ? 'outlined' : 'flat'"
        :loading="busy"
        @click="$emit('issue')"
        >{{ line.statement ? `Sign statement ${line.statement.statement + 1}` : 'Sign a statement' }}</v-btn
      >
      <template v-if="line.changes.length">
        <v-btn v-if="!isAsking" variant="text" @click="isAsking = true">Why it changed</v-btn>
        <v-btn v-if="!line.withheld && !isWithholding" variant="text" @click="isWithholding = true"
          >Not now…</v-btn
        >
      </template>
    </div>
    <form v-if="isWithholding" class="row" @submit.prevent="withhold">
      <v-text-field
        v-model="reason"
        label="Why it is not signed"
        maxlength="500"
        :error-messages="withholding.errorsOf('reason')"
      />
      <v-btn type="submit" variant="outlined" :loading="withholding.busy.value">Keep</v-btn>
    </form>
  </div>
</template>

<style scoped>
.state {
  display: grid;
  gap: 8px;
}
</style>
