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
const email = ref('');
/** Whether this server has a mail server to send links by. */
const canMail = ref(false);
void api.firstStart().then(
  ({ mailsResets }) => (canMail.value = mailsResets),
  () => undefined,
);
const choice = ref<RoleChoice>({ role: 'helper' });
const made = ref<{
  readonly name: string;
  readonly link: string;
  readonly expiresAt: string;
  readonly mailedTo: string | null;
} | null>(null);

async function invite(): Promise<void> {
  const mail = email.value.trim();
  const answer = await inviting.run({
    name: name.value.trim(),
    ...choice.value,
    ...(mail === '' ? {} : { email: mail }),
  });
  if (!answer) return;
  const { token, expiresAt, isMailed } = answer.value;
  made.value = {
    name: name.value.trim(),
    link: `${window.location.origin}/join#${token}`,
    expiresAt,
    mailedTo: isMailed ? mail : null,
  };
  name.value = '';
  email.value = '';
}
</script>

<template>
  <section class="invite">
    <h2>Invite somebody</h2>
    <form class="new" novalidate @submit.prevent="invite">
      <v-text-field v-model="name" label="Whom" maxlength="80" :error-messages="inviting.errorsOf('name')" />
      <v-text-field
        v-if="canMail"
        v-model="email"
        type="email"
        label="E-mail, to send the link to, if any"
        :error-messages="inviting.errorsOf('email')"
      />
      <RoleField v-model="choice" label="As" :errors="inviting.errorsOf('role')" />
      <v-btn type="submit" color="primary" size="large" :loading="inviting.busy.value">Make a link</v-btn>
    </form>
    <v-card v-if="made" class="made">
      <QrCode :text="made.link" :label="`The invitation of ${made.name} as a code`" class="code" />
      <div class="text">
        <p>
          <strong>For {{ made.name }}.</strong>
          {{
            made.mailedTo
              ? `The link was mailed to ${made.mailedTo}. It can also be sent, or scanned, from here.`
              : 'Send this link, or let them scan the code.'
          }}
          It lets one person in, until {{ momentDay(made.expiresAt) }}, and is shown this once.
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
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
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
