import type { RoutePlanInput } from '@karyotome/contract';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useProjects } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** More projects of one name are not looked through. */
const MOST_NAMESAKES = 50;

/** Makes a route a project, or the route of the project from which one came. */
export function useRouteChoice() {
  const route = useRoute();
  const router = useRouter();
  const notices = useNotices();
  const { data: projects } = useProjects();
  const project = computed(() => projects.value?.find(({ id }) => id === route.query['project']) ?? null);

  /** The target's own name, or with a number where a project has it. */
  function nameFor(target: string): string {
    const taken = new Set((projects.value ?? []).map(({ name }) => name));
    const names = Array.from({ length: MOST_NAMESAKES }, (_, i) => (i === 0 ? target : `${target} ${i + 1}`));
    return names.find((name) => !taken.has(name)) ?? target;
  }

  const choosing = useWrite(async (plan: RoutePlanInput): Promise<string> => {
    if (!project.value) {
      const { target } = plan;
      return (await api.addProject({ name: nameFor(target), targets: [target], plan })).id;
    }
    const { id, name, targets, note, endedOn, version } = project.value;
    await api.changeProject(id, { name, targets, note, endedOn, plan }, version);
    return id;
  });
  async function choose(plan: RoutePlanInput): Promise<void> {
    const chosen = await choosing.run(plan);
    if (!chosen) return notices.warn(choosing.message.value ?? 'It could not be kept');
    notices.say(project.value ? `Route chosen for ${project.value.name}` : 'Project begun');
    await router.push(`/season/projects/${chosen.value}`);
  }
  return { project, choose, busy: choosing.busy };
}
