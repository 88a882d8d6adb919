<script setup lang="ts">
import { ROLES, type Role } from '@karyotome/contract';
import { ROLE_WORDS } from '@karyotome/words';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import QrCode from '../../ui/QrCode.vue';

/** Makes an invitation, and shows its link this once. */
const notices = useNotices();
const inviting = useWrite(api.invite);
const name = ref('');
const role = ref<Role>('keeper');
const made = ref<{ readonly name: string; readonly link: string; readonly expiresAt: string } | null>(null);
const roles = ROLES.map((value) => ({ value, title: ROLE_WORDS[value].name }));

async function invite(): Promise<void> {
  const answer = await inviting.run({ name: name.value.trim(), role: role.value });
  if (!answer) return;
  const { token, expiresAt } = answer.value;
  made.value = { name: name.value.trim(), link: `${window.location.origin}/join#${token}`, expiresAt };
  name.value = '';
}
async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(made.value!.link);
    notices.say('The link is copied');
  } catch {
    notices.warn('It could not be copied: mark it and copy it by hand');
  }
}
</script>

<template>
  <section class="invite">
    <h2>Invite somebody</h2>
    <form class="new" novalidate @submit.prevent="invite">
      <v-text-field v-model="name" label="Whom" maxlength="80" :error-messages="inviting.errorsOf('name')" />
      <v-select
        v-model="role"
        label="As"
        :items="roles"
        :hint="ROLE_WORDS[role].may"
        persistent-hint
        :error-messages="inviting.errorsOf('role')"
      />
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
          <v-btn variant="outlined" @click="copy">Copy</v-btn>
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
