import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { JobMeter } from '#contract/field'
import { setServerNow } from '#web/kit'
import JobMeters from './JobMeters.vue'
import ReadingForm from './ReadingForm.vue'

beforeEach(() => {
  setActivePinia(createPinia())
  setServerNow('2026-11-23T10:30:00Z')
})
const meter: JobMeter = {
  ...{ id: 3, name: 'Water filtered', unit: 'm3', rollsAt: '100000', tag: 'SF-001', readHere: null },
  readings: [
    { value: '99800', at: '2026-11-22T10:30:00Z', anew: false },
    { value: '99500', at: '2026-11-21T10:30:00Z', anew: false },
    { value: '99200', at: '2026-11-20T10:30:00Z', anew: false },
  ],
}
const form = () => mount(ReadingForm, { props: { meter, readings: meter.readings, busy: false } })
async function write(wrapper: ReturnType<typeof form>, value: string): Promise<void> {
  await wrapper.find('#meter-3').setValue(value)
  await wrapper.find('form').trigger('submit')
}
const press = (wrapper: ReturnType<typeof form>, words: string) =>
  wrapper
    .findAll('button')
    .find((one) => one.text() === words)!
    .trigger('click')

test('a reading like the others is taken as it is, however people write it', async () => {
  const wrapper = form()
  await write(wrapper, '99 950,5')
  expect(wrapper.emitted('read')).toEqual([[{ value: '99950.5' }]])
})

test('one that shows less asks once: read again, rolled over, or a new counter', async () => {
  const wrapper = form()
  await write(wrapper, '120')
  expect(wrapper.find('[role="alert"]').text()).toContain('120 m3? The last reading was 99800 m3, which is more.')
  await press(wrapper, 'Read it again')
  expect((wrapper.find('#meter-3').element as HTMLInputElement).value).toBe('')
  await write(wrapper, '120')
  await press(wrapper, 'It rolled over')
  expect(wrapper.emitted('read')).toEqual([[{ value: '120', answer: 'rolled' }]])
})

test('one that runs far faster than ever is taken once somebody is sure; letters are no reading', async () => {
  const wrapper = form()
  await write(wrapper, '9x')
  expect(wrapper.text()).toContain('Write what it shows: digits')
  await wrapper.setProps({ readings: meter.readings.map((one) => ({ ...one, value: String(Number(one.value) - 90_000) })) })
  await write(wrapper, '50000')
  await press(wrapper, 'It is right')
  expect(wrapper.emitted('read')).toEqual([[{ value: '50000', answer: 'sure' }]])
})

test('on the phone each meter says what it showed last, and offers to be read until the job is left', async () => {
  const shown = (more: object) => mount(JobMeters, { props: { meters: [meter], over: false, busy: false, problem: null, ...more } })
  const wrapper = shown({})
  expect(wrapper.text()).toMatch(/Last: 99,800 m3/)
  await wrapper.find('#meter-3').setValue('99990')
  await wrapper.find('form').trigger('submit')
  expect(wrapper.emitted('read')).toEqual([[{ meterId: 3, value: '99990' }, meter]])
  expect(shown({ over: true }).find('form').exists()).toBe(false)
  expect(shown({ meters: [{ ...meter, readings: [] }] }).text()).toContain('Never read yet')
  expect(shown({ meters: [{ ...meter, readHere: '99800' }] }).text()).toContain('Read here')
})
