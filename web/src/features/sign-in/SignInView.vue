<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import OpenCard from './OpenCard.vue';

const session = useSession();
const route = useRoute();
const router = useRouter();
const email = ref('');
const password = ref('');
const first = ref<{ focus(): void } | null>(null);
onMounted(() => first.value?.focus());
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
    <div class="row">
      <img src="/mark.svg" alt="" width="44" height="44" />
      <div>
        <h1>Karyotome</h1>
        <p class="soft small">Records that can prove themselves</p>
      </div>
    </div>
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
