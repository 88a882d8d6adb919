<script setup lang="ts">
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSigningKeys } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import QrCode from '../../ui/QrCode.vue';
import RestoreKey from './RestoreKey.vue';
import StateBlock from '../../ui/StateBlock.vue';

/** The key that signs: its fingerprint, a backup of it, and a new one in its place. */
const emit = defineEmits<{ close: [] }>();
const { data, status, error, refetch } = useSigningKeys();
const session = useSession();
const notices = useNotices();
const current = computed(() => data.value?.find(({ replacedAt }) => replacedAt === null));
const earlier = computed(() => (data.value ?? []).filter(({ replacedAt }) => replacedAt !== null));
const password = ref('');
const backing = useWrite(api.backUpKey);
const replacing = useWrite(api.succeedKey);
const isSure = ref(false);
async function backUp(): Promise<void> {
  const made = await backing.run(password.value);
  if (!made) return;
  const blob = new Blob([JSON.stringify(made.value, null, 2)], { type: 'application/json' });
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = 'signing-key-backup.json';
  link.click();
  URL.revokeObjectURL(link.href);
  password.value = '';
  notices.say('Backup saved. It opens with this password alone.');
}
async function replace(): Promise<void> {
  if (!isSure.value) {
    isSure.value = true;
    return;
  }
  if (await replacing.run()) notices.say('A new key signs from now on');
  isSure.value = false;
}
</script>

<template>
  <v-dialog :model-value="true" max-width="600" @update:model-value="emit('close')">
    <v-card title="Signing key">
      <v-card-text class="stack">
        <StateBlock
          :status="status"
          :error="error"
          :is-empty="data?.length === 0"
          empty-title="No key yet"
          empty-text="It is made when the first statement is signed."
          @retry="refetch()"
        >
          <div v-if="current" class="key">
            <QrCode :text="current.did" label="Code of the key" />
            <div>
              <p class="small soft">Fingerprint, to be compared by word of mouth</p>
              <p class="words">{{ current.words.join(' ') }}</p>
              <p class="small soft did">{{ current.did }}</p>
              <p class="small soft">In use since {{ momentDay(current.createdAt) }}</p>
            </div>
          </div>
          <v-alert
            v-if="current && !current.isUsable"
            type="error"
            variant="tonal"
            :icon="false"
            role="alert"
          >
            This server cannot open the key: the secret that it was kept under is gone. Bring it back from its
            backup. Nothing can be signed until then.
          </v-alert>
          <p v-for="key in earlier" :key="key.id" class="small soft">
            {{ key.words.join(' ') }}: replaced on {{ momentDay(key.replacedAt!) }}
          </p>
          <form v-if="session.mayDestroy && current?.isUsable" class="row backup" @submit.prevent="backUp">
            <v-text-field
              v-model="password"
              label="Password for a backup"
              hint="At least 12 characters"
              persistent-hint
              type="password"
              autocomplete="new-password"
              :error-messages="backing.errorsOf('password')"
            />
            <v-btn type="submit" variant="outlined" :loading="backing.busy.value">Save a backup</v-btn>
          </form>
          <template v-if="session.mayManage && current?.isUsable">
            <p class="small soft">
              Replace the key where somebody else may have got hold of it. The old one introduces the new one,
              and what it signed stays valid.
            </p>
            <v-alert v-if="replacing.message.value" type="error" variant="tonal" :icon="false">{{
              replacing.message.value
            }}</v-alert>
            <div class="row">
              <v-btn variant="outlined" color="error" :loading="replacing.busy.value" @click="replace">{{
                isSure ? 'Replace it for good' : 'Replace the key'
              }}</v-btn>
            </div>
          </template>
        </StateBlock>
        <RestoreKey
          v-if="session.mayManage && status === 'success'"
          :is-needed="current?.isUsable === false"
        />
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="emit('close')">Close</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.key {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 16px;
  align-items: center;
}
.words {
  font-size: 1.15rem;
  font-weight: 600;
}
.did {
  overflow-wrap: anywhere;
}
.backup {
  flex-wrap: nowrap;
  align-items: flex-start;
}
@media (width < 480px) {
  .key {
    grid-template-columns: 1fr;
  }
  .backup {
    display: grid;
  }
}
.backup .v-btn {
  height: 48px;
}
</style>
