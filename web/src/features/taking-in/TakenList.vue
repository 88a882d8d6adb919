<script setup lang="ts">
import { api } from '../../api/resources.ts';
import { dayWords, momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useTaken } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** What was taken in so far. */
const { data } = useTaken();
const session = useSession();
const notices = useNotices();
const removing = useWrite(api.removeTaken);
async function remove(id: string): Promise<void> {
  if (await removing.run(id)) notices.say('It counts no more. The animals stay.');
  else notices.warn(removing.message.value ?? 'It could not be changed');
}
</script>

<template>
  <v-card v-if="data?.length" class="box">
    <h2>Statements taken in</h2>
    <div class="scroll">
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">Animal</th>
            <th scope="col">Breeder</th>
            <th scope="col">Statement</th>
            <th scope="col">Taken in</th>
            <th scope="col"><span class="d-sr-only">Acts</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in data" :key="one.id" :class="{ soft: one.removedAt }">
            <td>
              <router-link :to="`/animals/${one.animal.id}`">{{ one.animal.number }}</router-link>
            </td>
            <td>{{ one.breeder }}</td>
            <td>{{ one.statement }}, {{ dayWords(one.asOf) }}</td>
            <td>{{ momentDay(one.takenAt) }}</td>
            <td>
              <span v-if="one.removedAt" class="small">counts no more</span>
              <v-btn v-else-if="session.mayBreed" size="small" variant="text" @click="remove(one.id)"
                >Let it count no more</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </v-card>
</template>

<style scoped>
.box {
  display: grid;
  gap: 10px;
  padding: 18px;
}
</style>
