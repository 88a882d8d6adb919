<script setup lang="ts">
import type { AnimalView, RecordKind } from '@karyotome/contract';
import { capital, loanWords, recordWords } from '@karyotome/words';
import { computed } from 'vue';
import { dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';
import { standingRecord } from '../records/standing-record.ts';

/** Where an animal comes from that was not hatched here, and to or from whom it is lent. */
const props = defineProps<{ animal: AnimalView }>();
const emit = defineEmits<{ record: [kind: RecordKind, begin?: Partial<Record<string, unknown>>] }>();
const session = useSession();
const acquisition = computed(() => standingRecord(props.animal.records, 'acquisition'));
const loan = computed(() => props.animal.care.loan);
const terms = computed(() => standingRecord(props.animal.records, 'loan')?.body.terms);
</script>

<template>
  <v-card class="box">
    <div class="row">
      <h2>Origin and loans</h2>
      <v-spacer />
      <v-menu v-if="session.mayBreed">
        <template #activator="{ props: activator }">
          <v-btn v-bind="activator" size="small" variant="text" aria-label="Record origin or loan"
            >Record…</v-btn
          >
        </template>
        <v-list>
          <v-list-item
            v-if="!acquisition"
            title="Where it comes from…"
            @click="emit('record', 'acquisition')"
          />
          <v-list-item v-if="!loan" title="Lent to somebody…" @click="emit('record', 'loan')" />
          <v-list-item
            v-if="!loan"
            title="On loan from somebody…"
            @click="emit('record', 'loan', { direction: 'in' })"
          />
          <v-list-item v-if="loan" title="The loan ends…" @click="emit('record', 'loan-end')" />
        </v-list>
      </v-menu>
    </div>
    <p v-if="loan">
      <strong>{{ capital(loanWords(loan, reader())) }}</strong>, since {{ dayWords(loan.on)
      }}<template v-if="terms">: {{ terms }}</template>
    </p>
    <p v-if="acquisition" class="small">
      {{ capital(recordWords(acquisition, reader())) }}, {{ dayWords(acquisition.on) }}
    </p>
    <p v-else-if="animal.clutch" class="small soft">Hatched here, clutch {{ animal.clutch.name }}.</p>
    <p v-else class="small soft">Where it comes from is not recorded.</p>
  </v-card>
</template>
