import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Publishes pages one after another, and says how far it is: each signs a statement, which takes its inferences. */
export function usePublishing() {
  const notices = useNotices();
  const one = useWrite(api.publish);
  const done = ref<number | null>(null);
  const of = ref(0);

  async function publish(
    animals: readonly { readonly id: string; readonly number: string }[],
  ): Promise<void> {
    done.value = 0;
    of.value = animals.length;
    const refused: string[] = [];
    for (const { id } of animals) {
      if (await one.run(id)) done.value += 1;
      else refused.push(one.message.value ?? '');
    }
    const published = done.value;
    done.value = null;
    if (refused.length > 0) notices.warn(`${published} of ${animals.length} published. ${refused[0]}`);
    else notices.say(published === 1 ? `${animals[0]!.number} is published` : `${published} pages published`);
  }
  return { publish, done, of };
}
