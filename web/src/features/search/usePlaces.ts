import { computed, type ComputedRef } from 'vue';
import { useRouter, type RouteMeta } from 'vue-router';
import { useSession } from '../../stores/session.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { geneCards } from '../genes/gene-cards.ts';
import type { Candidate } from './candidates.ts';

/** The places of the application that whoever is signed in may use. */
export function usePlaces(): ComputedRef<Candidate[]> {
  const session = useSession();
  const router = useRouter();
  const may = ({ needs }: RouteMeta): boolean =>
    needs === undefined ||
    {
      breed: session.mayBreed,
      sell: session.maySell,
      manage: session.mayManage,
      destroy: session.mayDestroy,
    }[needs];
  return computed((): Candidate[] => [
    ...router
      .getRoutes()
      .filter(({ path, meta }) => meta.title && !meta.open && !path.includes(':') && may(meta))
      .map(({ path, meta }) => ({
        key: `place.${path}`,
        kind: 'place' as const,
        title: meta.title,
        about: path.split('/').length > 2 ? router.resolve(`/${path.split('/')[1]}`).meta.title : '',
        text: `${meta.title} ${meta.words ?? ''}`,
        to: path,
      })),
    ...(session.mayBreed
      ? [
          {
            key: 'place.add-animal',
            kind: 'place' as const,
            title: 'Add an animal',
            about: 'Animals',
            text: 'Add an animal new enter',
            to: '/animals?add=1',
          },
        ]
      : []),
  ]);
}

/** Each gene, by all its names. */
export function useGenes(): ComputedRef<Candidate[]> {
  const catalogue = useCatalogue();
  return computed((): Candidate[] =>
    geneCards(catalogue.value).flatMap(({ alleles }) =>
      alleles.map(({ id, name, words, double }) => ({
        key: `gene.${id}`,
        kind: 'gene' as const,
        title: name,
        about: 'in the catalogue of genes',
        text: [name, double, ...words].join(' '),
        to: `/genes?q=${encodeURIComponent(name)}`,
      })),
    ),
  );
}
