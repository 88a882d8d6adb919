import { mount } from '@vue/test-utils';
import { afterEach, expect, test } from 'vitest';
import { createVuetify } from 'vuetify';
import { VDateInput } from 'vuetify/components';
import DayField from './DayField.vue';

/** A field as somebody of this locale has it. */
function dayField(locale: string, modelValue: string | null, props: object = {}) {
  const field = mount(DayField, {
    props: { modelValue, label: 'Day', ...props },
    global: { plugins: [createVuetify({ date: { locale: { en: locale } } })] },
  });
  mounted.push(field);
  return field;
}
const mounted: { unmount: () => void }[] = [];
afterEach(() => mounted.splice(0).forEach((field) => field.unmount()));

// The order of day, month and year by CLDR's short dates, from memory.
test.each([
  ['en-GB', '04/03/2026'],
  ['en-US', '03/04/2026'],
  ['de-DE', '04.03.2026'],
  ['sv-SE', '2026-03-04'],
])('in %s the day is shown as %s', (locale, shown) => {
  expect(dayField(locale, '2026-03-04').get('input').element.value).toBe(shown);
  expect(dayField(locale, null).get('input').element.value).toBe('');
});

test('a day that is picked is the same calendar day, whatever the time zone; none is none', () => {
  const field = dayField('en-GB', '2026-03-04');
  field.getComponent(VDateInput).vm.$emit('update:modelValue', new Date(2026, 0, 31));
  field.getComponent(VDateInput).vm.$emit('update:modelValue', null);
  expect(field.emitted('update:modelValue')).toEqual([['2026-01-31'], [null]]);
});
