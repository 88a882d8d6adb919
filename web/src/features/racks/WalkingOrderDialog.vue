<script setup lang="ts">
import type { RackSummary } from '@karyotome/contract';
import { mdiArrowDown, mdiArrowUp, mdiDrag } from '@mdi/js';
import { ref } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { api } from '../../api/resources.ts';
import { countWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FormDialog from '../../ui/FormDialog.vue';

/** The racks in the order in which they are walked past: dragged, or moved by one with a button. */
const props = defineProps<{ racks: readonly RackSummary[] }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const order = ref([...props.racks]);
const { run, general, busy } = useWrite(() => api.orderRacks(order.value.map(({ id }) => id)));
function moveBy(from: number, by: 1 | -1): void {
  const moved = [...order.value];
  const [rack] = moved.splice(from, 1);
  moved.splice(from + by, 0, rack!);
  order.value = moved;
}
async function send(): Promise<void> {
  if (!(await run())) return;
  notices.say('Walking order kept');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Walking order"
    submit-text="Keep this order"
    :busy="busy"
    :general="() => general([])"
    @close="emit('close')"
    @submit="send"
  >
    <p class="wide small soft">
      Today, rounds, the feeding night and all lists of tubs follow it. Drag a rack by its grip, or move it
      with the arrows.
    </p>
    <VueDraggable
      v-model="order"
      class="wide"
      handle=".grip"
      :animation="120"
      tag="ol"
      :force-fallback="true"
    >
      <li v-for="(rack, i) in order" :key="rack.id" :data-rack="rack.name">
        <span class="grip" :title="`Drag ${rack.name}`"><v-icon :icon="mdiDrag" /></span>
        <span class="name">
          <strong>{{ rack.name }}</strong>
          <span class="small soft">{{ rack.room }}, {{ countWords(rack.animals, 'animal', 'animals') }}</span>
        </span>
        <v-btn
          :icon="mdiArrowUp"
          variant="text"
          size="small"
          :disabled="i === 0"
          :aria-label="`${rack.name} earlier`"
          @click="moveBy(i, -1)"
        />
        <v-btn
          :icon="mdiArrowDown"
          variant="text"
          size="small"
          :disabled="i === order.length - 1"
          :aria-label="`${rack.name} later`"
          @click="moveBy(i, 1)"
        />
      </li>
    </VueDraggable>
  </FormDialog>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
  background: rgb(var(--v-theme-surface));
}
li + li {
  border-top: 1px solid var(--hair);
}
.grip {
  display: grid;
  place-items: center;
  width: 40px;
  height: 44px;
  cursor: grab;
  touch-action: none;
}
.name {
  flex: 1;
  min-width: 0;
  display: grid;
}
</style>
