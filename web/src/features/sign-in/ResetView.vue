<script setup lang="ts">
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

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
  <div class="reset">
    <v-card class="card">
      <h1>New password</h1>
      <form class="stack" novalidate @submit.prevent="submit">
        <v-text-field
          v-model="password"
          label="The new password"
          type="password"
          autocomplete="new-password"
          hint="At least 12 characters; several words are easy to keep"
          persistent-hint
          :error-messages="errorsOf('password')"
        />
        <v-alert
          v-if="general(['password'])"
          type="error"
          variant="tonal"
          density="compact"
          :icon="false"
          role="alert"
          >{{ general(['password']) }}</v-alert
        >
        <v-btn type="submit" color="primary" size="large" :loading="busy">Change the password</v-btn>
      </form>
      <p class="soft small">You are signed out everywhere else.</p>
    </v-card>
  </div>
</template>

<style scoped>
.reset {
  display: grid;
  place-items: center;
  min-height: 92vh;
  padding: 16px;
}
.card {
  display: grid;
  gap: 20px;
  width: min(420px, 100%);
  padding: 32px;
}
</style>
