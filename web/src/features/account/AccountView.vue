<script setup lang="ts">
import type { DeviceView } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { deviceWords } from '../../format/device-words.ts';
import { momentDay } from '../../format/format.ts';
import { useRoundQueue } from '../../offline/useRoundQueue.ts';
import { useNotices } from '../../stores/notices.ts';
import { useDevices } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import LineCard from '../../ui/LineCard.vue';
import NewPasswordField from '../../ui/NewPasswordField.vue';
import PagePart from '../../ui/PagePart.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import TableLink from '../../ui/TableLink.vue';
import PasskeysCard from './PasskeysCard.vue';
import SecondFactorCard from './SecondFactorCard.vue';
import TokensCard from './TokensCard.vue';

/** One's own account: the password, where it is signed in, and its collections. */
const session = useSession();
const notices = useNotices();
const router = useRouter();
const queue = useRoundQueue();
const { data: devices } = useDevices();
const changing = useWrite(api.changePassword);
const ending = useWrite(api.endDevice);
const endingOthers = useWrite(api.endOtherDevices);
const choosing = useWrite(session.choose);
const current = ref('');
const next = ref('');
const others = computed(() => (devices.value ?? []).filter(({ isThis }) => !isThis));

async function changePassword(): Promise<void> {
  if (!(await changing.run({ current: current.value, next: next.value }))) return;
  [current.value, next.value] = ['', ''];
  notices.say('The password is changed, and every other device is signed out');
}
const nameOf = ({ userAgent }: DeviceView): string =>
  deviceWords(userAgent) ?? 'A program that does not say what it is';
const aboutDevice = ({ usedAt, signedInAt }: DeviceView): string =>
  `used ${momentDay(usedAt)}${signedInAt ? `, signed in ${momentDay(signedInAt)}` : ''}`;
async function end(device: DeviceView): Promise<void> {
  if (await ending.run(device.id)) notices.say(`${nameOf(device)} is signed out`);
  else notices.warn(ending.message.value ?? 'It could not be signed out');
}
async function endOthers(): Promise<void> {
  if (await endingOthers.run()) notices.say('Every other device is signed out');
  else notices.warn(endingOthers.message.value ?? 'They could not be signed out');
}
/** What was not sent yet belongs to the collection it was entered in. */
async function choose(id: string): Promise<void> {
  if (queue.entries.length > 0)
    return notices.warn('Some entries were not sent yet: go to Rounds with a connection first');
  if (await choosing.run(id)) await router.push('/today');
  else notices.warn(choosing.message.value ?? 'It could not be opened');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Your account</h1>
      <router-link to="/settings" class="small">Settings</router-link>
    </div>
    <p class="soft">{{ session.view?.account.name }}, {{ session.view?.account.email }}</p>
    <PagePart v-if="(session.view?.collections.length ?? 0) > 1" title="Your collections">
      <LineCard v-for="one in session.view?.collections" :key="one.id" :title="one.name">
        <span v-if="one.id === session.settings?.id" class="small soft">open here</span>
        <v-btn v-else variant="outlined" :aria-label="`Open ${one.name}`" @click="choose(one.id)">Open</v-btn>
      </LineCard>
    </PagePart>
    <PagePart title="Password">
      <form class="stack" novalidate @submit.prevent="changePassword">
        <v-text-field
          v-model="current"
          label="The password you have"
          type="password"
          autocomplete="current-password"
          :error-messages="changing.errorsOf('current')"
        />
        <NewPasswordField v-model="next" label="The new one" :errors="changing.errorsOf('next')" />
        <RefusalAlert :text="changing.general(['current', 'next'])" />
        <div class="row">
          <v-btn type="submit" color="primary" size="large" :loading="changing.busy.value"
            >Change the password</v-btn
          >
        </div>
      </form>
    </PagePart>
    <SecondFactorCard />
    <PasskeysCard />
    <PagePart title="Where you are signed in">
      <p class="small soft">
        A device is signed out after 30 days without use, and after 90 days in any case.
      </p>
      <LineCard
        v-for="device in devices"
        :key="device.id"
        :title="`${nameOf(device)}${device.isThis ? ', this one' : ''}`"
        :about="aboutDevice(device)"
      >
        <v-btn
          v-if="!device.isThis"
          variant="text"
          :aria-label="`Sign out ${nameOf(device)}`"
          @click="end(device)"
          >Sign out</v-btn
        >
      </LineCard>
      <div class="row">
        <v-btn
          v-if="others.length > 1"
          variant="outlined"
          :loading="endingOthers.busy.value"
          @click="endOthers"
          >Sign out everywhere else</v-btn
        >
        <TableLink list="devices" />
      </div>
    </PagePart>
    <TokensCard />
  </div>
</template>
