import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { OrderStep } from '#contract/methods'
import { settled } from '../../tests/kit/fetch'
import type { StepActs } from './stepActs'
import StepRow from './StepRow.vue'

beforeEach(() => setActivePinia(createPinia()))
const step: OrderStep = {
  ...{ id: 4, version: 2, text: 'Pressure of the vessel', kind: 'measured', unit: 'bar', least: 2, most: 3, choices: [], first: false, state: 'open' },
  ...{ position: 1, afterId: null, assignee: null, appliedId: null, value: null, outside: false, note: null, doneBy: null, doneAt: null, photoId: null },
}
function row(more: object = {}) {
  const sent: unknown[] = []
  const take = (name: string) => (_step: OrderStep, input: unknown) => Promise.resolve(void sent.push([name, input]))
  const acts: StepActs = { do: take('do'), undo: take('undo'), photo: take('photo'), find: (finding) => void sent.push(['find', finding]) }
  return { sent, row: mount(StepRow, { props: { step, waitsFor: null, mayDo: true, acts, ...more } }) }
}
const measure = async (wrapper: ReturnType<typeof row>['row'], value: string) => {
  await wrapper.find('#step-4').setValue(value)
  await wrapper.find('form').trigger('submit')
  await settled()
}

test('a value within its limits is taken as it is', async () => {
  const { sent, row: wrapper } = row()
  await measure(wrapper, '2,5')
  expect(sent).toEqual([['do', { id: 4, version: 2, value: '2.5' }]])
})

test('one outside asks first: measure again, or say what is wrong and keep it', async () => {
  const { sent, row: wrapper } = row()
  await measure(wrapper, '4.1')
  expect(sent).toEqual([])
  expect(wrapper.find('[role="status"]').text()).toBe('4.1 bar is outside its limits, 2 to 3 bar.')
  const press = (words: string) =>
    wrapper
      .findAll('button')
      .find((one) => one.text() === words)!
      .trigger('click')
  await press('Measure again')
  expect((wrapper.find('#step-4').element as HTMLInputElement).value).toBe('')
  await measure(wrapper, '1')
  // Nothing is kept without a word of what it means.
  expect(wrapper.find('button[type="submit"]').attributes('disabled')).toBeDefined()
  await wrapper.find('#step-4-wrong').setValue('Vessel leaks at the flange')
  await wrapper.find('form').trigger('submit')
  await settled()
  expect(sent).toEqual([
    ['do', { id: 4, version: 2, value: '1', note: 'Vessel leaks at the flange' }],
    ['find', { text: 'Pressure of the vessel: 1 bar, outside 2 to 3 bar. Vessel leaks at the flange', severity: 'repair', fixedNow: false, stepId: 4 }],
  ])
})

test('whoever works on it may stop over it; nobody else is offered that', async () => {
  const { sent, row: wrapper } = row({ mayStop: true })
  await measure(wrapper, '9')
  await wrapper.find('#step-4-wrong').setValue('Relief valve stuck')
  await wrapper
    .findAll('button')
    .find((one) => one.text() === 'Record it and stop the work')!
    .trigger('click')
  await settled()
  expect([wrapper.emitted('stop'), sent[0]]).toEqual([[[]], ['do', { id: 4, version: 2, value: '9', note: 'Relief valve stuck' }]])
  expect(sent).toHaveLength(2)
  const { row: other } = row()
  await measure(other, '9')
  expect(other.text()).not.toContain('stop the work')
})

test('at the desk a value outside is written off a sheet, and marked', async () => {
  const wrapper = mount(StepRow, { props: { step, waitsFor: null, mayDo: true } })
  await wrapper.find('#step-4').setValue('9')
  globalThis.fetch = () => Promise.reject(new TypeError('none'))
  await wrapper.find('form').trigger('submit')
  expect(wrapper.text()).not.toContain('is outside its limits,')
})
