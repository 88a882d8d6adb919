<script setup lang="ts">
import type { SecondFactorStart } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSecondFactor } from '../../stores/queries.ts';
import { useCopy } from '../../stores/useCopy.ts';
import { useWrite } from '../../stores/useWrite.ts';
import PagePart from '../../ui/PagePart.vue';
import QrCode from '../../ui/QrCode.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';

/** Codes of an authenticator besides the password. */
const { data } = useSecondFactor();
const notices = useNotices();
const copy = useCopy();
const beginning = useWrite(api.beginSecondFactor);
const confirming = useWrite(api.confirmSecondFactor);
const renewing = useWrite(api.newRecoveryCodes);
const ending = useWrite(api.removeSecondFactor);
const password = ref('');
const code = ref('');
const started = ref<SecondFactorStart | null>(null);
const codes = ref<readonly string[]>([]);

async function begin(): Promise<void> {
  const answer = await beginning.run({ password: password.value });
  if (!answer) return;
  [password.value, started.value] = ['', answer.value];
}
async function confirm(): Promise<void> {
  const answer = await confirming.run({ code: code.value.trim() });
  if (!answer) return;
  [started.value, code.value, codes.value] = [null, '', answer.value.codes];
  notices.say('The second factor is on');
}
async function renew(): Promise<void> {
  const answer = await renewing.run({ password: password.value });
  if (!answer) return;
  [password.value, codes.value] = ['', answer.value.codes];
}
async function end(): Promise<void> {
  if (!(await ending.run({ password: password.value }))) return;
  password.value = '';
  notices.say('The second factor is off');
}
const grouped = (one: string): string => `${one.slice(0, 5)}-${one.slice(5)}`;
</script>

<template>
  <PagePart v-if="data" title="Second factor">
    <v-card v-if="codes.length > 0" class="told">
      <p>
        <strong>Recovery codes.</strong> Each lets you in once if the authenticator is lost. They are shown
        this once: print them or write them down, and keep them away from this device.
      </p>
      <ul class="codes">
        <li v-for="one in codes" :key="one">
          <code>{{ grouped(one) }}</code>
        </li>
      </ul>
      <div class="row">
        <v-btn variant="outlined" @click="copy(codes.map(grouped).join('\n'), 'The codes are copied')"
          >Copy</v-btn
        >
        <v-btn variant="text" @click="codes = []">Done</v-btn>
      </div>
    </v-card>
    <template v-if="data.since">
      <p>
        On since {{ momentDay(data.since) }}, with {{ data.recoveryCodesLeft }} of 10 recovery codes left.
        Signing in takes a code of your authenticator besides the password.
      </p>
      <form class="stack" novalidate @submit.prevent="renew">
        <v-text-field
          v-model="password"
          label="Your password, to change it"
          type="password"
          autocomplete="current-password"
          :error-messages="[...renewing.errorsOf('password'), ...ending.errorsOf('password')]"
        />
        <RefusalAlert :text="renewing.general(['password']) ?? ending.general(['password'])" />
        <div class="row">
          <v-btn type="submit" variant="outlined" :loading="renewing.busy.value">New recovery codes</v-btn>
          <v-btn variant="text" :loading="ending.busy.value" @click="end">Turn it off</v-btn>
        </div>
      </form>
    </template>
    <template v-else-if="started">
      <p>Scan this with an authenticator app, or type the key into it. Then give the six digits it shows.</p>
      <QrCode class="picture" :text="started.uri" label="QR code for the authenticator" />
      <code class="small key">{{ started.secret }}</code>
      <form class="stack" novalidate @submit.prevent="confirm">
        <v-text-field
          v-model="code"
          label="The six digits it shows"
          inputmode="numeric"
          autocomplete="one-time-code"
          :error-messages="confirming.errorsOf('code')"
        />
        <RefusalAlert :text="confirming.general(['code'])" />
        <div class="row">
          <v-btn type="submit" color="primary" size="large" :loading="confirming.busy.value"
            >Turn it on</v-btn
          >
          <v-btn variant="text" @click="started = null">Leave it off</v-btn>
        </div>
      </form>
    </template>
    <template v-else>
      <p class="small soft">
        With it, a password that leaked lets nobody in: signing in takes a code of an authenticator app on
        your phone, too.
      </p>
      <form class="stack" novalidate @submit.prevent="begin">
        <v-text-field
          v-model="password"
          label="Your password, to set it up"
          type="password"
          autocomplete="current-password"
          :error-messages="beginning.errorsOf('password')"
        />
        <RefusalAlert :text="beginning.general(['password'])" />
        <div class="row">
          <v-btn type="submit" variant="outlined" size="large" :loading="beginning.busy.value"
            >Set up an authenticator</v-btn
          >
        </div>
      </form>
    </template>
  </PagePart>
</template>

<style scoped>
.told {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.codes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
  gap: 6px;
  padding: 0;
  list-style: none;
}
.key {
  overflow-wrap: anywhere;
}
.picture {
  width: 200px;
}
</style>
