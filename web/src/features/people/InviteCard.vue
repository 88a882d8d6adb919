<script setup lang="ts">
import type { RoleChoice } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useCopy } from '../../stores/useCopy.ts';
import { useWrite } from '../../stores/useWrite.ts';
import QrCode from '../../ui/QrCode.vue';
import RoleField from './RoleField.vue';

/** Makes an invitation, and shows its link this once. */
const copy = useCopy();
const inviting = useWrite(api.invite);
const name = ref('');
const choice = ref<RoleChoice>({ role: 'helper' });
const made = ref<{ readonly name: string; readonly link: string; readonly expiresAt: string } | null>(null);

async function invite(): Promise<void> {
  const answer = await inviting.run({ name: name.value.trim(), ...choice.value });
  if (!answer) return;
  const { token, expiresAt } = answer.value;
  made.value = { name: name.value.trim(), link: `${window.location.origin}/join#${token}`, expiresAt };
  name.value = '';
}
</script>

<template>
  <section class="invite">
    <h2>Invite somebody</h2>
    <form class="new" novalidate @submit.prevent="invite">
      <v-text-field v-model="name" label="Whom" maxlength="80" :error-messages="inviting.errorsOf('name')" />
      <RoleField v-model="choice" label="As" :errors="inviting.errorsOf('role')" />
      <v-btn type="submit" color="primary" size="large" :loading="inviting.busy.value">Make a link</v-btn>
    </form>
    <v-card v-if="made" class="made">
      <QrCode :text="made.link" :label="`The invitation of ${made.name} as a code`" class="code" />
      <div class="text">
        <p>
          <strong>For {{ made.name }}.</strong> Send this link, or let them scan the code. It lets one person
          in, until {{ momentDay(made.expiresAt) }}, and is shown this once.
        </p>
        <code class="small link">{{ made.link }}</code>
        <div class="row">
          <v-btn variant="outlined" @click="copy(made.link, 'The link is copied')">Copy</v-btn>
          <v-btn variant="text" @click="made = null">Done</v-btn>
        </div>
      </div>
    </v-card>
  </section>
</template>

<style scoped>
.invite {
  display: grid;
  gap: 12px;
  max-width: 860px;
  margin-top: 32px;
}
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(200px, 300px) auto;
  align-items: start;
  gap: 8px;
}
.made {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 16px;
  padding: 16px;
}
.text {
  display: grid;
  align-content: start;
  gap: 8px;
}
.link {
  overflow-wrap: anywhere;
}
@media (width < 700px) {
  .new,
  .made {
    grid-template-columns: minmax(0, 1fr);
  }
  .code {
    width: 200px;
  }
}
</style>
