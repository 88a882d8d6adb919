<script setup lang="ts">
import type { AnimalListView } from '@karyotome/contract';
import { mdiClose } from '@mdi/js';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useAnimalLists } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Lists that were kept under a name. */
const emit = defineEmits<{ choose: [words: string] }>();
const session = useSession();
const notices = useNotices();
const { data } = useAnimalLists();
const removal = useWrite(({ id, version }: AnimalListView) => api.removeAnimalList(id, version));
const addition = useWrite(api.addAnimalList);
async function remove(list: AnimalListView): Promise<void> {
  if (!(await removal.run(list)))
    return notices.warn(removal.message.value ?? 'The list could not be removed');
  const { name, words } = list;
  notices.say(`List removed: ${name}`, async () => {
    if (!(await addition.run({ name, words })))
      notices.warn(addition.message.value ?? 'The list could not be kept again');
  });
}
</script>

<template>
  <v-menu v-if="data?.length">
    <template #activator="{ props: activator }">
      <v-btn v-bind="activator" variant="text">Lists…</v-btn>
    </template>
    <v-list>
      <v-list-item
        v-for="list in data"
        :key="list.id"
        :title="list.name"
        :subtitle="list.words"
        @click="emit('choose', list.words)"
      >
        <template v-if="session.mayRecord" #append>
          <v-btn
            :icon="mdiClose"
            variant="text"
            size="small"
            :aria-label="`Remove the list ${list.name}`"
            @click.stop="remove(list)"
          />
        </template>
      </v-list-item>
    </v-list>
  </v-menu>
</template>
