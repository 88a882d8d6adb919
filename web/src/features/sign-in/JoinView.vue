<script setup lang="ts">
import type { InvitationOffer } from '@karyotome/contract';
import { ROLE_WORDS } from '@karyotome/words';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Takes an invitation. Its code stands behind the # of the address, which no server is told and no log keeps. */
const token = window.location.hash.slice(1);
const session = useSession();
const router = useRouter();
const offer = ref<InvitationOffer | null>(null);
const looking = useWrite(api.lookAtInvitation);
const name = ref('');
const email = ref('');
const password = ref('');
const { run, busy, errorsOf, general } = useWrite(session.join);
void looking.run(token).then((found) => (offer.value = found?.value ?? null));

async function submit(): Promise<void> {
  const input = {
    token,
    name: name.value.trim() || null,
    email: email.value.trim(),
    password: password.value,
  };
  if (await run(input)) await router.replace('/today');
}
</script>

<template>
  <div class="join">
    <v-card class="card">
      <h1>Invitation</h1>
      <v-progress-linear v-if="looking.busy.value" indeterminate aria-label="Looking at the invitation" />
      <v-alert v-else-if="!offer" type="warning" variant="tonal" :icon="false" role="alert">
        {{ looking.message.value ?? 'This link is no invitation.' }} Ask whoever sent it for a new one.
      </v-alert>
      <template v-else>
        <p>
          {{ offer.by }} invites you to <strong>{{ offer.collection }}</strong> as
          {{ ROLE_WORDS[offer.role].name.toLowerCase() }}: {{ ROLE_WORDS[offer.role].may }}.
        </p>
        <form class="stack" novalidate @submit.prevent="submit">
          <v-text-field
            v-model="email"
            label="E-mail"
            type="email"
            autocomplete="username"
            :error-messages="errorsOf('email')"
          />
          <v-text-field
            v-model="name"
            label="Your name"
            hint="It stands on what you record"
            persistent-hint
            autocomplete="name"
            maxlength="80"
            :error-messages="errorsOf('name')"
          />
          <v-text-field
            v-model="password"
            label="Password"
            type="password"
            autocomplete="new-password"
            hint="At least 12 characters; several words are easy to keep. With an account here already, its password."
            persistent-hint
            :error-messages="errorsOf('password')"
          />
          <v-alert
            v-if="general(['email', 'name', 'password'])"
            type="error"
            variant="tonal"
            density="compact"
            :icon="false"
            role="alert"
            >{{ general(['email', 'name', 'password']) }}</v-alert
          >
          <v-btn type="submit" color="primary" size="large" :loading="busy">Join</v-btn>
        </form>
      </template>
    </v-card>
  </div>
</template>

<style scoped>
.join {
  display: grid;
  place-items: center;
  min-height: 92vh;
  padding: 16px;
}
.card {
  display: grid;
  gap: 20px;
  width: min(460px, 100%);
  padding: 32px;
}
</style>
