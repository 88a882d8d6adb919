import type { OfferedAnimal } from './offered.ts';
import { availabilityOf } from './structured-data.ts';

/**
 * The offers of a collection as a JSON Feed (https://jsonfeed.org/version/1.1). Price and sex stand in an extension of our
 * own, `_offer`, as the format provides.
 */
export function jsonFeed(
  collection: string,
  pageName: string,
  offered: readonly OfferedAnimal[],
  origin: string,
): object {
  const home = `${origin}/c/${pageName}`;
  return {
    version: 'https://jsonfeed.org/version/1.1',
    title: `${collection}: ball pythons`,
    home_page_url: home,
    feed_url: `${home}/feed.json`,
    language: 'en',
    authors: [{ name: collection, url: home }],
    items: offered.map(({ slug, number, name, label, text, picture, publishedAt, changedAt, ...offer }) => ({
      id: `${origin}/p/${slug}`,
      url: `${origin}/p/${slug}`,
      title: [number, name, label].filter(Boolean).join(' '),
      content_text: text ?? label,
      ...(picture ? { image: `${origin}/p/${slug}/pictures/${picture.id}/960` } : {}),
      date_published: publishedAt,
      date_modified: changedAt > publishedAt ? changedAt : publishedAt,
      tags: [offer.sex, offer.status],
      _offer: {
        about: home,
        number,
        genes: label,
        sex: offer.sex,
        hatched_on: offer.hatchedOn,
        price: offer.price,
        currency: offer.currency,
        availability: availabilityOf(offer.status),
        ready: offer.isReady,
      },
    })),
  };
}
