<script setup lang="ts">
import {
  offerInput,
  type AncestorShown,
  type AnimalView,
  type OfferView,
  type ParentView,
} from '@karyotome/contract';
import { mdiArrowLeft, mdiArrowRight } from '@mdi/js';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import CurrencyField from '../../ui/CurrencyField.vue';

/** What buyers are told of one animal: price, words, pictures in their order, and which ancestors. */
const props = defineProps<{ animal: AnimalView; offer: OfferView }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { animal, offer } = props;
const SHOWN: readonly { value: AncestorShown; title: string }[] = [
  { value: 'named', title: 'Number and name' },
  { value: 'number', title: 'Number only' },
  { value: 'hidden', title: 'Not at all' },
];
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `offer.${animal.id}.${offer.version}`,
  initial: () => ({
    price: offer.price,
    currency: offer.currency,
    text: offer.text ?? '',
    pictureIds: offer.pictureIds ?? animal.pictures.map(({ id }) => id),
    ancestors: { ...offer.ancestors } as Record<string, AncestorShown>,
  }),
  schema: offerInput,
  toInput: (values) => values,
  send: (input) => api.changeOffer(animal.id, input, offer.version),
});
function flat(parents: readonly ParentView[], depth: number): { parent: ParentView; depth: number }[] {
  return parents.flatMap((parent) => [{ parent, depth }, ...flat(parent.parents, depth + 1)]);
}
const ancestors = computed(() => {
  const seen = new Set<string>();
  return flat(animal.parents, 0).filter(({ parent }) => !seen.has(parent.id) && seen.add(parent.id));
});
const placeOf = (id: string): number => draft.pictureIds.indexOf(id);
function toggle(id: string): void {
  draft.pictureIds =
    placeOf(id) >= 0 ? draft.pictureIds.filter((other) => other !== id) : [...draft.pictureIds, id];
}
function shift(id: string, by: -1 | 1): void {
  const at = placeOf(id);
  const ids = [...draft.pictureIds];
  const other = ids[at + by];
  if (other === undefined) return;
  [ids[at], ids[at + by]] = [other, id];
  draft.pictureIds = ids;
}
const pictures = computed(() =>
  animal.pictures.toSorted((a, b) => (placeOf(a.id) + 1 || 1e3) - (placeOf(b.id) + 1 || 1e3)),
);
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(`The offer of ${animal.number} is saved`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="`What buyers see of ${animal.number}`"
    submit-text="Save"
    :max-width="680"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-number-input
      v-model="draft.price"
      label="Price"
      :precision="null"
      :min="0"
      control-variant="hidden"
      :error-messages="errorsOf('price')"
    />
    <CurrencyField v-model="draft.currency" :errors="errorsOf('currency')" />
    <v-textarea
      v-model="draft.text"
      label="Words for buyers"
      class="wide"
      rows="3"
      :error-messages="errorsOf('text')"
    />
    <fieldset v-if="animal.pictures.length" class="wide">
      <legend class="small soft">Pictures that show, in this order</legend>
      <div class="pictures">
        <div v-for="picture in pictures" :key="picture.id" :class="{ off: placeOf(picture.id) < 0 }">
          <img :src="api.thumbUrl(picture.id)" :alt="picture.caption || 'Picture'" />
          <div class="row">
            <v-btn
              :icon="mdiArrowLeft"
              size="small"
              variant="text"
              :disabled="placeOf(picture.id) < 1"
              :aria-label="`Move picture ${placeOf(picture.id) + 1} forward`"
              @click="shift(picture.id, -1)"
            />
            <v-btn size="small" variant="outlined" @click="toggle(picture.id)">{{
              placeOf(picture.id) < 0 ? 'Show' : 'Hide'
            }}</v-btn>
            <v-btn
              :icon="mdiArrowRight"
              size="small"
              variant="text"
              :disabled="placeOf(picture.id) < 0 || placeOf(picture.id) === draft.pictureIds.length - 1"
              :aria-label="`Move picture ${placeOf(picture.id) + 1} back`"
              @click="shift(picture.id, 1)"
            />
          </div>
        </div>
      </div>
    </fieldset>
    <fieldset v-if="ancestors.length" class="wide">
      <legend class="small soft">Ancestors on the page</legend>
      <div v-for="{ parent, depth } in ancestors" :key="parent.id" class="ancestor">
        <span :style="{ paddingLeft: `${depth * 16}px` }"
          >{{ parent.number }} {{ parent.name }} <span class="small soft">{{ parent.role }}</span></span
        >
        <v-select
          :model-value="draft.ancestors[parent.id] ?? 'number'"
          :items="SHOWN"
          :label="`How ${parent.number} shows`"
          density="compact"
          hide-details
          @update:model-value="draft.ancestors[parent.id] = $event"
        />
      </div>
    </fieldset>
    <p class="wide small soft">
      Welfare cautions of its genes always show. In a signed statement ancestors stand by number, since claims
      rest on them.
    </p>
  </FormDialog>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px;
}
.pictures img {
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border-radius: 8px;
}
.off img {
  opacity: 0.35;
}
.ancestor {
  display: grid;
  grid-template-columns: 1fr 210px;
  gap: 8px;
  align-items: center;
  padding: 4px 0;
}
</style>
