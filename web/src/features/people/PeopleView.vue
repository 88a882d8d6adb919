<script setup lang="ts">
import { grantsOf, type InvitationView, type MemberView, type RoleChoice } from '@karyotome/contract';
import { grantsWords, ROLE_WORDS } from '@karyotome/words';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useInvitations, useMembers } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import ConfirmDialog from '../../ui/ConfirmDialog.vue';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import InviteCard from './InviteCard.vue';
import RoleField from './RoleField.vue';

/** Who may use the collection, and what each may do. */
const session = useSession();
const notices = useNotices();
const { data: members, status, error, refetch } = useMembers();
const { data: invitations } = useInvitations();
const changing = useWrite(api.changeMember);
const removing = useWrite(api.removeMember);
const withdrawing = useWrite(api.withdrawInvitation);
const leaving = ref<MemberView | null>(null);

async function change({ id, name }: MemberView, choice: RoleChoice): Promise<void> {
  if (await changing.run(id, choice)) {
    notices.say(
      choice.role === 'custom'
        ? `${name} may now: ${grantsWords(grantsOf(choice))}`
        : `${name} is ${ROLE_WORDS[choice.role].name.toLowerCase()} now`,
    );
    if (id === session.view?.account.id) await session.refresh();
  } else notices.warn(changing.message.value ?? 'It could not be changed');
}
async function remove({ id, name }: MemberView): Promise<void> {
  leaving.value = null;
  if (await removing.run(id)) notices.say(`${name} is out: no session, link or calendar of theirs works now`);
  else notices.warn(removing.message.value ?? `${name} could not be removed`);
}
async function withdraw({ id, name }: InvitationView): Promise<void> {
  if (await withdrawing.run(id)) notices.say(`The invitation of ${name} is withdrawn`);
  else notices.warn(withdrawing.message.value ?? 'It could not be withdrawn');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>People</h1>
      <router-link to="/settings" class="small">Settings</router-link>
      <TableLink list="members" />
    </div>
    <p class="soft intro">
      Everybody who may use {{ session.settings?.name }}. What somebody recorded keeps their name when they
      go.
    </p>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="members?.length === 0"
      empty-title="Nobody"
      empty-text="Nobody may use this collection."
      @retry="refetch()"
    >
      <ul class="people">
        <li v-for="member in members" :key="member.id">
          <v-card class="person">
            <div class="who">
              <strong>{{ member.name }}</strong>
              <span class="small soft"
                >{{ member.email }}, since {{ momentDay(member.since)
                }}{{ member.id === session.view?.account.id ? ', you' : '' }}</span
              >
            </div>
            <RoleField
              :model-value="{ role: member.role, grants: [...member.grants] }"
              :label="`What ${member.name} may do`"
              density="compact"
              @update:model-value="change(member, $event)"
            />
            <v-btn
              v-if="member.id !== session.view?.account.id"
              variant="text"
              :aria-label="`Remove ${member.name}`"
              @click="leaving = member"
              >Remove</v-btn
            >
          </v-card>
        </li>
      </ul>
    </StateBlock>
    <InviteCard />
    <section v-if="invitations && invitations.length > 0" class="open">
      <h2>Not taken yet</h2>
      <v-card v-for="one in invitations" :key="one.id" class="person">
        <div class="who">
          <strong>{{ one.name }}</strong>
          <span class="small soft"
            >as {{ ROLE_WORDS[one.role].name.toLowerCase() }}, invited by {{ one.by }} on
            {{ momentDay(one.createdAt) }}, good until {{ momentDay(one.expiresAt) }}</span
          >
        </div>
        <v-btn variant="text" :aria-label="`Withdraw the invitation of ${one.name}`" @click="withdraw(one)"
          >Withdraw</v-btn
        >
      </v-card>
    </section>
    <ConfirmDialog
      v-if="leaving"
      :title="`Remove ${leaving.name}?`"
      submit-text="Remove"
      @close="leaving = null"
      @confirm="remove(leaving)"
    >
      They are signed out everywhere at once, and the calendar addresses, links and invitations they made stop
      working. What they recorded stays, under their name.
    </ConfirmDialog>
  </div>
</template>

<style scoped>
.intro {
  max-width: 70ch;
  margin-bottom: 16px;
}
.people {
  display: grid;
  gap: 8px;
  max-width: 860px;
  padding: 0;
  list-style: none;
}
.person {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(200px, 300px) 96px;
  align-items: center;
  gap: 16px;
  padding: 12px 16px;
}
.open {
  display: grid;
  gap: 8px;
  max-width: 860px;
  margin-top: 24px;
}
.open .person {
  grid-template-columns: minmax(0, 1fr) auto;
}
.who {
  display: grid;
  overflow-wrap: anywhere;
}
@media (width < 700px) {
  .person {
    grid-template-columns: minmax(0, 1fr);
    justify-items: start;
  }
  .person > :deep(.v-input) {
    width: 100%;
  }
}
</style>
