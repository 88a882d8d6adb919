import { createSSRApp, h, type VNode } from 'vue';
import { renderToString } from 'vue/server-renderer';
import { STYLE } from './style.ts';

/** A page that works without JavaScript. */
export interface PageContent {
  readonly title: string;
  /** For search engines and previews, in a sentence. */
  readonly description: string;
  /** Its own address, whole. */
  readonly address: string;
  /** Of a picture, whole; null where there is none. */
  readonly image?: string | null;
  /** schema.org, as JSON-LD. */
  readonly data?: object;
  readonly feed?: string;
  /** Not to be found by search engines. */
  readonly isUnlisted?: boolean;
  readonly body: VNode | readonly VNode[];
}

const meta = (property: string, content: string): VNode => h('meta', { property, content });
/** JSON within a page: no character of it can end the element that it stands in. */
const inPage = (data: object): string => JSON.stringify(data).replaceAll('<', '\\u003c');

function headOf({ title, description, address, image, data, feed, isUnlisted }: PageContent): VNode {
  return h('head', [
    h('meta', { charset: 'utf-8' }),
    h('meta', { name: 'viewport', content: 'width=device-width, initial-scale=1' }),
    h('title', title),
    h('meta', { name: 'description', content: description }),
    isUnlisted ? h('meta', { name: 'robots', content: 'noindex' }) : null,
    h('link', { rel: 'canonical', href: address }),
    h('link', { rel: 'icon', href: '/mark.svg', type: 'image/svg+xml' }),
    feed ? h('link', { rel: 'alternate', type: 'application/feed+json', title, href: feed }) : null,
    meta('og:type', 'website'),
    meta('og:title', title),
    meta('og:description', description),
    meta('og:url', address),
    image ? meta('og:image', image) : null,
    h('style', { innerHTML: STYLE }),
    data ? h('script', { type: 'application/ld+json', innerHTML: inPage(data) }) : null,
  ]);
}

/** The page as HTML. All text is escaped where it is rendered. */
export async function renderDocument(page: PageContent): Promise<string> {
  const root = h('html', { lang: 'en' }, [headOf(page), h('body', page.body as VNode[])]);
  return `<!doctype html>${await renderToString(createSSRApp({ render: () => root }))}`;
}

/** What every public page ends with. */
export const pageFooter = (): VNode =>
  h('footer', { class: 'small soft' }, [
    h('p', [
      'Statements are signed, and can be ',
      h('a', { href: '/verify' }, 'verified'),
      ' in a browser without trusting this server. No cookies, no tracking.',
    ]),
  ]);
