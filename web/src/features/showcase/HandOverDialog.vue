<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useCopy } from '../../stores/useCopy.ts';
import { useWrite } from '../../stores/useWrite.ts';
import QrCode from '../../ui/QrCode.vue';

/** What a buyer gets with an animal: its package as a file, or an address that opens once, as a card with a code. */
const props = defineProps<{ animal: { readonly id: string; readonly number: string }; collection: string }>();
const emit = defineEmits<{ close: [] }>();
const copy = useCopy();
const making = useWrite(api.handOver);
const address = ref('');
async function make(): Promise<void> {
  const made = await making.run(props.animal.id);
  if (!made) return;
  address.value = `${location.origin}${made.value.path}`;
}
const print = (): void => window.print();
const isReady = ref(false);
onMounted(() => (isReady.value = true));
</script>

<template>
  <v-dialog :model-value="true" max-width="520" @update:model-value="emit('close')">
    <v-card :title="`Hand over ${animal.number}`">
      <v-card-text class="stack">
        <p>
          The package holds the signed statements, the records without private notes, and the pictures.
          Whoever takes it into their own records goes on from there.
        </p>
        <div class="row">
          <v-btn variant="outlined" :href="api.statementPackageUrl(animal.id)" download
            >Package as a file</v-btn
          >
          <v-btn variant="outlined" :loading="making.busy.value" @click="make">{{
            address ? 'Another address' : 'Address for the buyer'
          }}</v-btn>
        </div>
        <v-alert v-if="making.message.value" type="error" variant="tonal" :icon="false" role="alert">{{
          making.message.value
        }}</v-alert>
        <template v-if="address">
          <div class="card">
            <QrCode :text="address" :label="`Code of ${address}`" />
            <div>
              <strong>{{ animal.number }}</strong>
              <p class="small">{{ collection }}</p>
              <p class="small">The package of this animal. It can be fetched once, within 30 days.</p>
              <p class="small address">{{ address }}</p>
            </div>
          </div>
          <div class="row">
            <v-btn variant="text" @click="copy(address, 'Address copied')">Copy address</v-btn>
            <v-btn variant="text" @click="print">Print card</v-btn>
          </div>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="emit('close')">Close</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
  <Teleport v-if="isReady && address" to="body">
    <div class="paper">
      <QrCode :text="address" :label="`Code of ${address}`" />
      <div>
        <h1>{{ animal.number }}</h1>
        <p>{{ collection }}</p>
        <p>
          The package of this animal: signed statements, records, pictures. It can be fetched once, within 30
          days.
        </p>
        <p class="address">{{ address }}</p>
      </div>
    </div>
  </Teleport>
</template>

<style scoped>
.card,
.paper {
  display: grid;
  grid-template-columns: 150px 1fr;
  gap: 14px;
  align-items: center;
}
.card {
  padding: 12px;
  border: 1px solid var(--hair);
  border-radius: 10px;
}
.address {
  overflow-wrap: anywhere;
}
.paper {
  display: none;
}
@media print {
  .paper {
    position: fixed;
    z-index: 9999;
    inset: 0;
    display: grid;
    align-content: start;
    max-width: 148mm;
    padding: 10mm;
    background: #fff;
    color: #000;
  }
}
</style>
