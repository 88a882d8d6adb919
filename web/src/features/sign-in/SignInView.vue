<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
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
void api.firstStart().then(
  ({ isOpen }) => void (isOpen && router.replace('/start')),
  () => undefined,
);
const { run, busy, errorsOf, general } = useWrite(session.signIn);

async function submit(): Promise<void> {
  if (!(await run({ email: email.value.trim(), password: password.value }))) return;
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
      <RefusalAlert :text="general(['email', 'password'])" />
      <v-btn type="submit" color="primary" size="large" :loading="busy">Sign in</v-btn>
    </form>
    <p class="soft small">
      Password forgotten? Whoever runs this server makes a link by which you choose a new one.
    </p>
  </OpenCard>
</template>
