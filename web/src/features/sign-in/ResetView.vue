<script setup lang="ts">
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import NewPasswordField from '../../ui/NewPasswordField.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import OpenCard from './OpenCard.vue';

/** Chooses a new password by a link. Its code stands behind the # of the address, which no server is told. */
const code = window.location.hash.slice(1);
const router = useRouter();
const notices = useNotices();
const password = ref('');
const { run, busy, errorsOf, general } = useWrite(api.resetPassword);

async function submit(): Promise<void> {
  if (!(await run({ code, password: password.value }))) return;
  notices.say('The password is changed. Sign in with it.');
  await router.replace('/sign-in');
}
</script>

<template>
  <OpenCard>
    <h1>New password</h1>
    <form class="stack" novalidate @submit.prevent="submit">
      <NewPasswordField v-model="password" label="The new password" :errors="errorsOf('password')" />
      <RefusalAlert :text="general(['password'])" />
      <v-btn type="submit" color="primary" size="large" :loading="busy">Change the password</v-btn>
    </form>
    <p class="soft small">You are signed out everywhere else.</p>
  </OpenCard>
</template>
