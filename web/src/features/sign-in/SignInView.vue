<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { hasAuthenticator } from '../../api/authenticator.ts';
import { api } from '../../api/resources.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import OpenCard from './OpenCard.vue';
import OpenHead from './OpenHead.vue';

const session = useSession();
const route = useRoute();
const router = useRouter();
const email = ref('');
const password = ref('');
const first = ref<{ focus(): void } | null>(null);
onMounted(() => first.value?.focus());
// Nobody has an account yet: whoever comes makes the first owner. Without a connection there is nothing to find out.
const mailsResets = ref(false);
void api.firstStart().then(
  (first) => {
    mailsResets.value = first.mailsResets;
    if (first.isOpen) void router.replace('/start');
  },
  () => undefined,
);
const writing = useWrite(session.signIn);
const { busy, errorsOf } = writing;
const withPasskey = useWrite(session.signInWithPasskey);
const secondFactor = ref('');
/** Password and address are right, and the account has a second factor. */
const isCodeAsked = ref(false);
const codeField = ref<{ focus(): void } | null>(null);
const told = computed(() =>
  writing.code.value === 'code-needed' ? null : writing.general(['email', 'password', 'code']),
);

async function submit(): Promise<void> {
  withPasskey.reset();
  const code = isCodeAsked.value ? secondFactor.value.trim() : null;
  const answer = await writing.run({ email: email.value.trim(), password: password.value, code });
  if (answer) return enter();
  if (writing.code.value !== 'code-needed') return;
  isCodeAsked.value = true;
  await nextTick();
  codeField.value?.focus();
}

async function usePasskey(): Promise<void> {
  writing.reset();
  if (await withPasskey.run()) await enter();
}

async function enter(): Promise<void> {
  const to = route.query['to'];
  // Only our own paths: a link must not lead a person elsewhere after signing in.
  await router.replace(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/today');
}
</script>

<template>
  <OpenCard>
    <OpenHead title="Karyotome" text="Records that can prove themselves" />
    <form class="stack" novalidate @submit.prevent="submit">
      <v-text-field
        ref="first"
        v-model="email"
        label="E-mail"
        type="email"
        autocomplete="username"
        :error-messages="errorsOf('email')"
      />
      <v-text-field
        v-model="password"
        label="Password"
        type="password"
        autocomplete="current-password"
        :error-messages="errorsOf('password')"
      />
      <v-text-field
        v-if="isCodeAsked"
        ref="codeField"
        v-model="secondFactor"
        label="Code"
        hint="Six digits of your authenticator, or a recovery code"
        persistent-hint
        autocomplete="one-time-code"
        :error-messages="errorsOf('code')"
      />
      <RefusalAlert :text="told ?? withPasskey.message.value" />
      <v-btn type="submit" color="primary" size="large" :loading="busy">Sign in</v-btn>
      <v-btn
        v-if="hasAuthenticator()"
        variant="outlined"
        size="large"
        :loading="withPasskey.busy.value"
        @click="usePasskey"
        >Use a passkey</v-btn
      >
    </form>
    <p v-if="mailsResets" class="small"><router-link to="/reset">Password forgotten?</router-link></p>
    <p v-else class="soft small">
      Password forgotten? Whoever runs this server makes a link by which you choose a new one.
    </p>
  </OpenCard>
</template>
