<script setup lang="ts">
import { personInput, type PersonView } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { farmToday } from '../../format/format.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';

/** A buyer, or somebody who waits. */
const props = defineProps<{ person: PersonView | null }>();
const emit = defineEmits<{ close: []; added: [string] }>();
const notices = useNotices();
const { person } = props;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `person.${person?.id ?? 'new'}.${person?.version ?? 0}`,
  initial: () => ({
    name: person?.name ?? '',
    email: person?.email ?? (null as string | null),
    phone: person?.phone ?? (null as string | null),
    note: person?.note ?? (null as string | null),
    consentOn: person?.consentOn ?? (null as string | null),
  }),
  schema: personInput,
  toInput: (values) => filled({ ...values, email: values.email?.trim() || null }),
  send: async (input) => {
    if (person === null) return (await api.addPerson(input)).id;
    await api.changePerson(person.id, input, person.version);
    return person.id;
  },
});
/** Erasing cannot be undone: it takes two touches. */
const isSure = ref(false);
const erasing = useWrite(api.erasePerson);
async function send(): Promise<void> {
  const { name } = draft;
  const sent = await submit();
  if (!sent) return;
  notices.say(`${name} saved`);
  emit('added', sent.value);
  emit('close');
}
async function erase(): Promise<void> {
  if (!isSure.value) {
    isSure.value = true;
    return;
  }
  if (await erasing.run(person!.id)) {
    notices.say('Erased');
    emit('close');
  } else notices.warn(erasing.message.value ?? 'It could not be erased');
}
</script>

<template>
  <FormDialog
    :title="person?.name ?? 'New person'"
    submit-text="Save"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.name" label="Name" :error-messages="errorsOf('name')" />
    <v-text-field v-model="draft.email" label="E-mail" type="email" :error-messages="errorsOf('email')" />
    <v-text-field v-model="draft.phone" label="Telephone" :error-messages="errorsOf('phone')" />
    <DayField v-model="draft.consentOn" label="Agreed to be written to on" :errors="errorsOf('consentOn')" />
    <p class="wide small soft">
      Nobody is written to without having agreed.
      <v-btn
        v-if="!draft.consentOn"
        size="small"
        variant="text"
        color="primary"
        @click="draft.consentOn = farmToday()"
        >They agreed today</v-btn
      >
    </p>
    <v-textarea
      v-model="draft.note"
      label="Private note"
      class="wide"
      rows="2"
      :error-messages="errorsOf('note')"
    />
    <p v-if="isSure" class="wide small">
      Name, addresses and notes go for good. The history of animals stays, without the name.
    </p>
    <template v-if="person" #actions>
      <v-btn :href="api.personExportUrl(person.id)" :download="`${person.name}.json`">Export</v-btn>
      <v-btn color="error" :loading="erasing.busy.value" @click="erase">{{
        isSure ? 'Erase for good' : 'Erase'
      }}</v-btn>
    </template>
  </FormDialog>
</template>
