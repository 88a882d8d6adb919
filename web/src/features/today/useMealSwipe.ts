import { useSwipe } from '@vueuse/core';
import { computed, ref, type Ref } from 'vue';

/** A hand that goes so far sideways means it. */
export const SWIPE_PX = 90;

/**
 * A finger that is drawn over a row: to the right the meal was taken, to the left it was refused. Up and down it scrolls.
 *
 * @param element - the row
 * @param isMeal - whether there is a meal to be swiped
 * @returns how far the row is drawn, in px, and what would be entered if it was let go now
 */
export function useMealSwipe(
  element: Ref<HTMLElement | null>,
  isMeal: () => boolean,
  onMeal: (taken: boolean) => void,
) {
  const offset = ref(0);
  const { lengthX, lengthY } = useSwipe(element, {
    threshold: 8,
    onSwipe: () => {
      const isSideways = Math.abs(lengthX.value) > 2 * Math.abs(lengthY.value);
      offset.value = isMeal() && isSideways ? -lengthX.value : 0;
    },
    onSwipeEnd: () => {
      const far = offset.value;
      offset.value = 0;
      if (Math.abs(far) >= SWIPE_PX) onMeal(far > 0);
    },
  });
  const meant = computed((): 'taken' | 'refused' | null => {
    if (Math.abs(offset.value) < SWIPE_PX) return null;
    return offset.value > 0 ? 'taken' : 'refused';
  });
  return { offset, meant };
}
