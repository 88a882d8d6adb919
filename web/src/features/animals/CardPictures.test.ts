import { expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import CardPictures from './CardPictures.vue';

test('the cards stand beside the form one after another, turned where they lie on their side', async () => {
  let made = 0;
  vi.stubGlobal(
    'URL',
    Object.assign(URL, { createObjectURL: () => `blob:${++made}`, revokeObjectURL: vi.fn() }),
  );
  const wrapper = mounted(CardPictures, { at: 0, 'onUpdate:at': (at: number) => wrapper.setProps({ at }) });
  const input = wrapper.find('input[type=file]');
  const files = ['a.jpg', 'b.jpg'].map((name) => new File(['x'], name, { type: 'image/jpeg' }));
  Object.defineProperty(input.element, 'files', { value: files, configurable: true });
  // A file field cannot be filled by a page; here it may be emptied.
  Object.defineProperty(input.element, 'value', { value: '', writable: true });
  await input.trigger('change');
  expect(wrapper.text()).toContain('1 of 2');
  expect(wrapper.find('img').attributes('alt')).toBe('Card 1: a.jpg');
  await button(wrapper, 'Turn the card').trigger('click');
  expect(wrapper.find('img').attributes('style')).toContain('rotate(90deg)');
  await button(wrapper, 'The next card').trigger('click');
  expect(wrapper.text()).toContain('2 of 2');
  expect(wrapper.find('img').attributes('alt')).toBe('Card 2: b.jpg');
  await button(wrapper, 'The next card').trigger('click');
  expect(wrapper.text()).toContain('2 of 2');
});
