<script setup lang="ts">
import type { InvitationOffer } from '@karyotome/contract';
import { grantsWords, ROLE_WORDS } from '@karyotome/words';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import NewPasswordField from '../../ui/NewPasswordField.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import OpenCard from './OpenCard.vue';

/** Takes an invitation. Its code stands behind the # of the address, which no server is told and no log keeps. */
const token = window.location.hash.slice(1);
const session = useSession();
const router = useRouter();
const offer = ref<InvitationOffer | null>(null);
const looking = useWrite(api.lookAtInvitation);
const name = ref('');
const email = ref('');
const password = ref('');
/** Of somebody with an account here that has a second factor. */
const code = ref('');
const isCodeAsked = ref(false);
const { run, busy, errorsOf, general, code: refusal } = useWrite(session.join);
void looking.run(token).then((found) => (offer.value = found?.value ?? null));

async function submit(): Promise<void> {
  const input = {
    token,
    name: name.value.trim() || null,
    email: email.value.trim(),
    password: password.value,
    code: code.value.trim() || null,
  };
  if (await run(input)) return void (await router.replace('/today'));
  if (refusal.value === 'code-needed') isCodeAsked.value = true;
}
</script>

<template>
  <OpenCard>
    <h1>Invitation</h1>
    <v-progress-linear v-if="looking.busy.value" indeterminate aria-label="Looking at the invitation" />
    <v-alert v-else-if="!offer" type="warning" variant="tonal" :icon="false" role="alert">
      {{ looking.message.value ?? 'This link is no invitation.' }} Ask whoever sent it for a new one.
    </v-alert>
    <template v-else>
      <p>
        {{ offer.by }} invites you to <strong>{{ offer.collection }}</strong> as
        {{ ROLE_WORDS[offer.role].name.toLowerCase() }}:
        {{ offer.role === 'custom' ? grantsWords(offer.grants) : ROLE_WORDS[offer.role].may }}.
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
        <NewPasswordField
          v-model="password"
          label="Password"
          :errors="errorsOf('password')"
          more="With an account here already, its password."
        />
        <v-text-field
          v-if="isCodeAsked"
          v-model="code"
          label="Code"
          hint="Six digits of your authenticator, or a recovery code"
          persistent-hint
          autocomplete="one-time-code"
          :error-messages="errorsOf('code')"
        />
        <RefusalAlert :text="general(['email', 'name', 'password', 'code'])" />
        <v-btn type="submit" color="primary" size="large" :loading="busy">Join</v-btn>
      </form>
    </template>
  </OpenCard>
</template>
