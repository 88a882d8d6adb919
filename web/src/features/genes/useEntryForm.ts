import { catalogueEntry, type CatalogueEntryInput, type CatalogueView } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';

/** The form of an entry of the catalogue: added, or put in the place of the one that is edited. */
export function useEntryForm<Draft extends object>({
  editing,
  said,
  close,
  ...form
}: {
  readonly key: string;
  readonly initial: () => Draft;
  readonly toInput: (draft: Draft) => unknown;
  readonly editing: () => CatalogueView['entries'][number] | undefined;
  /** What is said once it is saved. */
  readonly said: () => string;
  readonly close: () => void;
}) {
  const notices = useNotices();
  const { submit, ...rest } = useForm({
    ...form,
    schema: catalogueEntry,
    send: (entry: CatalogueEntryInput) => {
      const before = editing();
      return before
        ? api.changeCatalogueEntry(before.id, entry, before.version)
        : api.addCatalogueEntry(entry);
    },
  });
  async function send(): Promise<void> {
    if (!(await submit())) return;
    notices.say(said());
    close();
  }
  return { ...rest, send };
}
