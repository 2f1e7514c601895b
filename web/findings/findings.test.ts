import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { FindingRow, FloorAround } from '#contract/findings'
import { useSession } from '#web/kit'
import { answering, settled } from '../../tests/kit/fetch'
import FindingForm from './FindingForm.vue'
import FindingRows from './FindingRows.vue'
import { spaceAt, spotsLike, spotsOn } from './found'
import SpotPick from './SpotPick.vue'

const FLOOR: FloorAround = {
  ...{ id: 7, code: 'GAN-1', name: 'First floor' },
  spaces: [
    { id: 31, code: 'GAN-102', name: 'Studio 2', shape: [[[0, 0], [4, 0], [4, 3], [0, 3]]] }, // prettier-ignore
    { id: 32, code: 'GAN-103', name: 'Studio 3', shape: null },
  ],
  assets: [{ id: 9, tag: 'P-204', name: 'Circulation pump', placeId: 31, at: [1, 1] }],
}
beforeEach(() => setActivePinia(createPinia()))
afterEach(() => (document.body.innerHTML = ''))

describe('where it is', () => {
  const spots = spotsOn([FLOOR])
  test('is found by a code as people type it, by words, or by a tag; whole codes first', () => {
    const codes = (typed: string) => spotsLike(spots, typed, 8).map(({ code }) => code)
    expect(codes('gan102')).toEqual(['GAN-102'])
    expect(codes('studio')).toEqual(['GAN-102', 'GAN-103'])
    expect(codes('pump circ')).toEqual(['P-204'])
    expect(codes('  ')).toEqual([])
    expect(spotsLike([{ placeId: 1, code: 'A-10', name: 'x' }, { placeId: 2, code: 'A-1', name: 'y' }], 'a1', 8)[0]!.code).toBe('A-1') // prettier-ignore
  })
  test('is the room a pin lies in, where that is drawn', () => {
    expect(spaceAt(FLOOR, [1, 1])?.code).toBe('GAN-102')
    expect(spaceAt(FLOOR, [9, 9])).toBeNull()
    expect(spaceAt(undefined, [1, 1])).toBeNull()
  })
  test('is picked by a press, or by Enter for the first; what is not there is said', async () => {
    const pick = mount(SpotPick, { props: { id: 'spot', spots } })
    await pick.find('#spot').setValue('p-2')
    await pick.find('#spot').trigger('keydown', { key: 'Enter' })
    expect(pick.emitted('pick')![0]).toEqual([{ placeId: 31, assetId: 9, code: 'P-204', name: 'Circulation pump' }])
    await pick.find('#spot').setValue('nowhere')
    expect(pick.text()).toContain('Nothing in this building is called that.')
  })
})

describe('the form on the phone', () => {
  const form = () =>
    mount(FindingForm, { props: { visitId: 5, here: 'FH-018 Fume cupboard', hereCode: 'GAN-102', busy: false, problem: null }, attachTo: document.body })
  test('asks what, how bad and where, and says it with what was chosen', async () => {
    answering({ 'GET /api/rounds/5/around': { body: { floors: [FLOOR] } } })
    const wrapper = form()
    await settled()
    expect(wrapper.text()).toContain('FH-018 Fume cupboard')
    expect(wrapper.find('button[type="submit"]').attributes('disabled')).toBeDefined()
    await wrapper.find('#finding').setValue('Rail loose')
    await wrapper.findAll('button').find((one) => one.text() === 'Somewhere else')!.trigger('click') // prettier-ignore
    await wrapper.find('#finding-spot').setValue('studio 3')
    await wrapper.find('[aria-label="GAN-103 Studio 3"]').trigger('click')
    expect(wrapper.find('#finding-spot').exists()).toBe(false)
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('record')).toEqual([
      [{ finding: { text: 'Rail loose', severity: 'repair', fixedNow: false, placeId: 32 }, where: 'GAN-103 Studio 3', photos: [] }],
    ])
  })
  test('keeps what was typed when it is left', async () => {
    answering({ 'GET /api/rounds/5/around': { body: { floors: [] } } })
    const wrapper = form()
    await wrapper.find('#finding').setValue('Half a word')
    wrapper.unmount()
    await flushPromises()
    expect((form().find('#finding').element as HTMLTextAreaElement).value).toBe('Half a word')
  })
})

describe('at the desk', () => {
  const row = (changed: Partial<FindingRow>): FindingRow => ({
    ...{ id: 1, text: 'Seal worn', severity: 'repair', where: 'GAN-102 Studio 2', placeId: 31, assetId: null, pin: null, photos: [] },
    ...{ at: '2026-11-23T09:00:00Z', who: 'Bram Oyelaran', state: 'open', foundOn: { id: 4, number: 'W-31207' }, answeredBy: null, setAside: null },
    ...changed,
  })
  const rows = [row({}), row({ id: 2, text: 'Rail loose', severity: 'unsafe' }), row({ id: 3, text: 'Tap tightened', state: 'fixed' })]
  const LINK = { template: '<a><slot /></a>' }
  function shown(more: object = {}) {
    useSession().self = { name: 'Maren', roles: ['coordinator'] } as never
    return mount(FindingRows, {
      props: { label: 'Findings', rows, named: true, ...more },
      attachTo: document.body,
      global: { stubs: { RouterLink: LINK, RecordLink: LINK } },
    })
  }
  const press = async (wrapper: ReturnType<typeof shown>, words: string) => {
    await wrapper.findAll('button').find((one) => one.text() === words)!.trigger('click') // prettier-ignore
    await settled()
  }

  test('those that wait are marked, and one order is drafted for them', async () => {
    const sent = answering({ 'POST /api/findings/orders': { body: { orders: [{ id: 90, number: 'W-31500' }] } } })
    const wrapper = shown()
    expect(wrapper.findAll('li [role="checkbox"]')).toHaveLength(2)
    expect(wrapper.find('.decide button').attributes('disabled')).toBeDefined()
    await wrapper.find('[role="checkbox"]').trigger('click')
    await press(wrapper, 'One order for 2 findings')
    expect(sent.filter(({ method }) => method === 'POST').map(({ body }) => body)).toEqual([{ groups: [[1, 2]] }])
    expect(wrapper.emitted('changed')).toHaveLength(1)
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Findings')
  })
  test('a refusal says that nothing was changed; what somebody else decided is not chosen any more', async () => {
    answering({
      'POST /api/findings/orders': {
        status: 422,
        body: { type: 'about:blank', title: 'No', status: 422, reasons: [{ code: 'finding_over', sentence: 'Choose again.', field: 'ids' }] },
      },
    })
    const wrapper = shown()
    await wrapper.find('li [role="checkbox"]').trigger('click')
    await press(wrapper, 'Draft an order')
    expect(wrapper.find('[role="alert"]').text()).toBe('Nothing was changed. Choose again.')
    await wrapper.setProps({ rows: [row({ state: 'ordered', answeredBy: { id: 90, number: 'W-31500', state: 'draft' } }), rows[1]!] })
    expect(wrapper.find('.decide button').attributes('disabled')).toBeDefined()
    expect(wrapper.text()).toContain('W-31500')
    expect(wrapper.find('[aria-label="Take up again: Seal worn"]').exists()).toBe(true)
  })
  test('who may only read is offered nothing', () => {
    const wrapper = shown()
    useSession().self = { name: 'Petra', roles: ['billing_clerk'] } as never
    return wrapper.vm.$nextTick().then(() => {
      expect(wrapper.find('[role="checkbox"]').exists()).toBe(false)
      expect(wrapper.find('.decide').exists()).toBe(false)
    })
  })
})
