import type { PublicAnimal, Status } from '@karyotome/contract';

/** schema.org's words for whether something can be had. */
const AVAILABILITY: Partial<Record<Status, string>> = {
  'for-sale': 'https://schema.org/InStock',
  reserved: 'https://schema.org/LimitedAvailability',
  sold: 'https://schema.org/SoldOut',
};

export const availabilityOf = (status: Status): string | null => AVAILABILITY[status] ?? null;

/** An animal as a schema.org `Product`, with its `Offer` where it has a price. */
export function productData(
  animal: Pick<
    PublicAnimal,
    'number' | 'name' | 'label' | 'collection' | 'status' | 'price' | 'currency' | 'hatchedOn' | 'sex'
  >,
  address: string,
  image: string | null,
): object {
  const { number, name, label, collection, status, price, currency, hatchedOn, sex } = animal;
  const availability = availabilityOf(status);
  const seller = { '@type': 'Organization', name: collection };
  return {
    '@context': 'https://schema.org',
    '@type': 'Product',
    name: [number, name, label].filter(Boolean).join(' '),
    description: `Ball python (Python regius), ${label}`,
    sku: number,
    url: address,
    category: 'Live animals',
    ...(image ? { image } : {}),
    ...(hatchedOn ? { productionDate: hatchedOn } : {}),
    additionalProperty: [
      { '@type': 'PropertyValue', name: 'Sex', value: sex },
      { '@type': 'PropertyValue', name: 'Genes', value: label },
    ],
    ...(price !== null && availability
      ? { offers: { '@type': 'Offer', price, priceCurrency: currency, availability, url: address, seller } }
      : {}),
  };
}
