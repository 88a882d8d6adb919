<script setup lang="ts">
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import NewPasswordField from '../../ui/NewPasswordField.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import OpenCard from './OpenCard.vue';

/** Has a link mailed for a new password; by the link, chooses it. Its code stands behind the # of the address, which no server is told. */
const code = window.location.hash.slice(1);
const router = useRouter();
const notices = useNotices();
const password = ref('');
const { run, busy, errorsOf, general } = useWrite(api.resetPassword);
const email = ref('');
const asking = useWrite(api.forgotPassword);
const isAsked = ref(false);

async function submit(): Promise<void> {
  if (!(await run({ code, password: password.value }))) return;
  notices.say('The password is changed. Sign in with it.');
  await router.replace('/sign-in');
}
async function ask(): Promise<void> {
  isAsked.value = (await asking.run({ email: email.value.trim() })) !== null;
}
</script>

<template>
  <OpenCard>
    <h1>New password</h1>
    <p v-if="isAsked" role="status">
      If {{ email.trim() }} has an account here, a link is on its way to it. It is good once, for two hours.
    </p>
    <form v-else-if="code === ''" class="stack" novalidate @submit.prevent="ask">
      <v-text-field
        v-model="email"
        label="E-mail"
        type="email"
        autocomplete="username"
        :error-messages="asking.errorsOf('email')"
      />
      <RefusalAlert :text="asking.general(['email'])" />
      <v-btn type="submit" color="primary" size="large" :loading="asking.busy.value">Mail me a link</v-btn>
    </form>
    <form v-else class="stack" novalidate @submit.prevent="submit">
      <NewPasswordField v-model="password" label="The new password" :errors="errorsOf('password')" />
      <RefusalAlert :text="general(['password'])" />
      <v-btn type="submit" color="primary" size="large" :loading="busy">Change the password</v-btn>
    </form>
    <p v-if="code !== ''" class="soft small">You are signed out everywhere else.</p>
  </OpenCard>
</template>
