import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { FoundPart, PlannedPart } from '#contract/field'
import { useCarrying } from '#web/devices'
import { CallProblem } from '#web/kit'
import { choose } from '../../tests/kit/choose'
import { answering } from '../../tests/kit/fetch'
import JobEquipment from './JobEquipment.vue'
import JobParts from './JobParts.vue'
import PartForm from './PartForm.vue'

beforeEach(() => setActivePinia(createPinia()))
const van = { storeId: 7, store: 'Van 2', free: '2', mine: true }
const main = { storeId: 1, store: 'Main store', free: '40', mine: false }
const CARTRIDGE: FoundPart = { id: 5, code: 'PL-301', name: 'Tap cartridge', unit: 'pc', inStock: '42', lies: [van, main] }
const VALVE: FoundPart = { id: 6, code: 'PL-303', name: 'Fill valve', unit: 'pc', inStock: '0', lies: [] }
const wait = () => new Promise((resolve) => setTimeout(resolve, 180))

async function form(planned: PlannedPart[] = []) {
  answering({
    'GET /api/parts': ({ url }) => ({
      body: { rows: [CARTRIDGE, VALVE].filter(({ code }) => url.includes('q=') === false || decodeURIComponent(url).includes(code) || url.endsWith('q=')) },
    }),
  })
  const wrapper = mount(PartForm, { props: { planned, busy: false, problem: null } })
  await flushPromises()
  return wrapper
}
const buttons = (wrapper: ReturnType<typeof mount>) => wrapper.findAll('button').map((one) => one.text())

describe('taking a part', () => {
  test('is out of the own van first, or the store that is chosen', async () => {
    const wrapper = await form()
    await choose(wrapper, 'part', 5)
    expect(wrapper.text()).toContain('My van, Van 2')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('use')![0]).toEqual([{ partId: 5, quantity: '1', storeId: 7 }, CARTRIDGE])
    await choose(wrapper, 'part-store', 1)
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('use')![1]![0]).toEqual({ partId: 5, quantity: '1', storeId: 1 })
  })

  test('what is planned comes first, with how many; what is kept for the job is taken before the van', async () => {
    const wrapper = await form([
      { partId: 6, code: 'PL-303', name: 'Fill valve', unit: 'pc', quantity: '3', kept: [{ storeId: 1, store: 'Main store', quantity: '3' }] },
    ])
    expect(wrapper.findAll('.list .n-radio').map((one) => one.text())[0]).toContain('3 planned')
    await choose(wrapper, 'part', 6)
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('use')![0]![0]).toEqual({ partId: 6, quantity: '3', storeId: 1 })
  })

  test('of which there is none anywhere asks for it instead; of which there are too few, either', async () => {
    const wrapper = await form()
    await choose(wrapper, 'part', 6)
    expect(wrapper.text()).toContain('There is none of it in any store.')
    expect(buttons(wrapper)).not.toContain('Use it')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('ask')![0]).toEqual([{ partId: 6, quantity: '1' }, VALVE])
    await choose(wrapper, 'part', 5)
    await wrapper.find('#part-quantity').setValue('41')
    await wrapper.find('#part-quantity').trigger('blur')
    await choose(wrapper, 'part-store', 1)
    expect(wrapper.text()).toContain('1 pc more than there are.')
    expect(buttons(wrapper)).toEqual(expect.arrayContaining(['Use it', 'Ask for it to be bought']))
  })

  test('a code that is no part is said; a quantity that is none is not sent', async () => {
    const wrapper = await form()
    await wrapper.find('#part-text').setValue('XX-1')
    await wrapper.find('#part-text').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    await wait()
    expect(wrapper.text()).toContain('There is no part XX-1.')
    await wrapper.find('#part-text').setValue('PL-301')
    await wrapper.find('#part-text').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    await wrapper.find('#part-quantity').setValue('none')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('use')).toBeUndefined()
  })

  test('without signal it is found among what is carried along, less what was taken already', async () => {
    answering({})
    const carrying = useCarrying()
    carrying.away = true
    carrying.kept = (() => Promise.resolve({ parts: [CARTRIDGE] })) as never
    carrying.acts = [{ seq: 1, key: 'k', body: { name: 'part', visitId: 1, at: '2026-11-23T10:00:00Z', input: { partId: 5, quantity: '2', storeId: 7 } } }]
    globalThis.fetch = () => Promise.reject(new TypeError('no signal'))
    const wrapper = mount(PartForm, { props: { planned: [], busy: false, problem: null } })
    await flushPromises()
    await wait()
    await choose(wrapper, 'part', 5)
    await wrapper.find('form').trigger('submit')
    // The van is empty by now.
    expect(wrapper.emitted('use')![0]![0]).toEqual({ partId: 5, quantity: '1', storeId: 1 })
  })
})

test('what the job took less what came back; a part of it is brought back, and a refusal stands at its field', async () => {
  const move = (quantity: string) => ({ id: 1, partId: 5, code: 'PL-301', name: 'Tap cartridge', unit: 'pc', quantity })
  const job = { parts: [move('3'), move('-1')], planned: [], asked: [{ partId: 6, name: 'Fill valve', unit: 'pc', quantity: '2' }] }
  const wrapper = mount(JobParts, { props: { job, busy: false, problem: null } })
  expect(wrapper.text()).toContain('2 pc Tap cartridge')
  expect(wrapper.text()).toContain('2 pc Fill valve, asked for')
  await wrapper.find('[aria-label="Bring back Tap cartridge"]').trigger('click')
  await wrapper.find('form').trigger('submit')
  expect(wrapper.emitted('back')![0]![0]).toEqual({ partId: 5, quantity: '1' })
  const reasons = [{ code: 'not_taken', sentence: 'The order has 2 pc of it: no more can come back.', field: 'quantity' }]
  await wrapper.setProps({ problem: new CallProblem({ type: 'about:blank', title: 'No', status: 422, detail: 'No', reasons }) })
  expect(wrapper.text()).toContain('no more can come back')
})

describe('equipment', () => {
  const tower = { equipmentId: 3, tag: 'EQ-1', name: 'Scaffold tower', state: 'booked' as const, has: null, until: '2026-11-23T15:00:00Z' }
  const card = (more: object = {}) => mount(JobEquipment, { props: { equipment: [tower], over: false, busy: false, problem: null, ...more } })

  test('what is booked is taken by a press, what is out given back with what is to be said', async () => {
    const wrapper = card()
    await wrapper.find('[aria-label="Take Scaffold tower"]').trigger('click')
    expect(wrapper.emitted('take')![0]).toEqual([{ equipmentId: 3, tag: 'EQ-1', name: 'Scaffold tower' }])
    await wrapper.setProps({ equipment: [{ ...tower, state: 'out', has: 'Bram Oyelaran' }] })
    await wrapper.find('[aria-label="Give back Scaffold tower"]').trigger('click')
    await wrapper.find('#equipment-note').setValue('One wheel is loose')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('back')![0]).toEqual([expect.objectContaining({ equipmentId: 3 }), 'One wheel is loose'])
  })

  test('a tag that is scanned or typed takes what is not with the job, and offers to give back what is', async () => {
    useCarrying().readAny = (() => Promise.resolve({ equipment: [{ id: 9, tag: 'EQ-4', name: 'Dehumidifier' }] })) as never
    const wrapper = card({ equipment: [{ ...tower, state: 'out', has: 'Bram Oyelaran' }] })
    const scan = async (tag: string) => {
      await wrapper
        .findAll('button')
        .find((one) => one.text() === 'Other equipment')!
        .trigger('click')
      await wrapper.find('#equipment-tag').setValue(tag)
      await wrapper.find('#equipment-tag').trigger('keydown', { key: 'Enter' })
      await flushPromises()
    }
    await scan('eq-4')
    expect(wrapper.emitted('take')![0]).toEqual([{ equipmentId: 9, tag: 'EQ-4', name: 'Dehumidifier' }])
    await scan('EQ-1')
    expect(wrapper.find('[aria-label="Give back Scaffold tower"]').exists() || wrapper.find('#equipment-note').exists()).toBe(true)
    await scan('EQ-99')
    expect(wrapper.text()).toContain('There is no equipment EQ-99 here.')
  })

  test('nothing more is taken once the job was left', () => {
    expect(buttons(card({ over: true }))).toEqual([])
  })
})
