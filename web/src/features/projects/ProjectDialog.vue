<script setup lang="ts">
import { newProject, projectChange, type ProjectSummary } from '@karyotome/contract';
import { mdiClose, mdiPlus } from '@mdi/js';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';

/** Begins a project, or changes what it is called and aims at. */
const props = defineProps<{ project?: ProjectSummary }>();
const emit = defineEmits<{ close: []; done: [id: string] }>();
const notices = useNotices();
const { project } = props;
const { draft, discard, submit, busy, errorsOf, general } = useForm({
  key: `project-${project?.id ?? 'new'}`,
  initial: () => ({
    name: project?.name ?? '',
    targets: project ? [...project.targets] : [''],
    note: project?.note ?? '',
  }),
  schema: project ? projectChange : newProject,
  toInput: ({ name, targets, note }) => ({
    name,
    targets: targets.filter((text) => text.trim() !== ''),
    note,
    ...(project ? { endedOn: project.endedOn } : {}),
  }),
  send: async (input): Promise<{ id: string }> => {
    if (!project) return api.addProject(input);
    await api.changeProject(project.id, { ...input, endedOn: project.endedOn }, project.version);
    return { id: project.id };
  },
});
async function send(): Promise<void> {
  const { name } = draft;
  const sent = await submit();
  if (!sent) return;
  notices.say(project ? `${name} changed` : `Project begun: ${name}`);
  emit('done', sent.value.id);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="project ? 'Change the project' : 'New project'"
    :submit-text="project ? 'Keep' : 'Begin'"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.name" label="Name" class="wide" :error-messages="errorsOf('name')" />
    <div v-for="(_, i) in draft.targets" :key="i" class="wide target">
      <OwnGenesField
        :model-value="draft.targets[i]!"
        :label="i === 0 ? 'What it is to give' : 'Or'"
        :errors="errorsOf(`targets.${i}`, ...(i === 0 ? ['targets'] : []))"
        hint="For example: Clown Pastel. One that shows at least this."
        @update:model-value="draft.targets[i] = $event ?? ''"
      />
      <v-btn
        v-if="draft.targets.length > 1"
        :icon="mdiClose"
        variant="text"
        :aria-label="`Remove target ${i + 1}`"
        @click="draft.targets.splice(i, 1)"
      />
    </div>
    <v-btn
      v-if="draft.targets.length < 6"
      variant="text"
      class="more"
      :prepend-icon="mdiPlus"
      @click="draft.targets.push('')"
      >Another target</v-btn
    >
    <v-textarea
      v-model="draft.note"
      label="Note"
      class="wide"
      rows="2"
      auto-grow
      :error-messages="errorsOf('note')"
    />
  </FormDialog>
</template>

<style scoped>
.target {
  display: flex;
  gap: 4px;
}
.target > :first-child {
  flex: 1;
}
.more {
  justify-self: start;
}
</style>
