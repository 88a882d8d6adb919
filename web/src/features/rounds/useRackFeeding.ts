import { ref } from 'vue';
import type { MealOffer } from './meal-offers.ts';
import { useEntering } from './useEntering.ts';

/** The meals of a rack that are entered at once: those of which it is asked, until they are entered. */
export function useRackFeeding() {
  const { enterAll } = useEntering();
  const feeding = ref<{ readonly title: string; readonly offers: readonly MealOffer[] } | null>(null);
  async function enterMeals(...entries: Parameters<typeof enterAll>): Promise<void> {
    feeding.value = null;
    await enterAll(...entries);
  }
  return { feeding, enterMeals };
}
