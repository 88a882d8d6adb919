import { PiniaColada } from '@pinia/colada';
import { mount } from '@vue/test-utils';
import { createPinia } from 'pinia';
import { vi } from 'vitest';
import type { Component } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { createVuetify } from 'vuetify';

// The test's document has no window that could be zoomed; dialogs ask for one.
vi.stubGlobal('visualViewport', new EventTarget());

/**
 * A component as it stands in the application: with its stores, its links and its theme, over no server.
 *
 * @param prepare - sets the stores up before the component is there
 */
export function mounted<C extends Component>(
  component: C,
  props: Record<string, unknown>,
  prepare: () => void = () => undefined,
) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { template: '<div />' } }],
  });
  return mount(component as Component, {
    props,
    global: { plugins: [createVuetify(), createPinia(), PiniaColada, router, { install: prepare }] },
    attachTo: document.body,
  });
}

/** The button with this text or label. */
export function button(wrapper: ReturnType<typeof mounted>, name: string) {
  const found = wrapper
    .findAll('button, a.v-btn')
    .find((one) => one.text() === name || one.attributes('aria-label') === name);
  if (!found) throw new Error(`No button "${name}" among: ${wrapper.findAll('button').map((b) => b.text())}`);
  return found;
}

/** What the page says, dialogs too: those stand beside their component, at its end. */
export const pageText = (): string => document.body.textContent.replace(/\s+/g, ' ');
