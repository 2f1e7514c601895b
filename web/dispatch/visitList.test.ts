import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { VisitRow } from '#contract/orders'
import { useUndo } from '#web/kit'
import { answering } from '../../tests/kit/fetch'
import ProposalBox from './ProposalBox.vue'
import VisitList from './VisitList.vue'

beforeEach(() => setActivePinia(createPinia()))
const visit = (more: Partial<VisitRow> = {}) => ({
  ...{ id: 7, version: 3, who: 'Ohm and Daughters', technicianId: null, vendorId: 2, kind: 'first', state: 'planned', result: null },
  ...{ plannedStart: '2026-11-23T11:00:00.000Z', plannedEnd: '2026-11-23T12:00:00.000Z', startedAt: null, endedAt: null },
  ...{ answer: null, answeredAt: null, answerNote: null, proposed: null, silent: false, brought: [], pass: null },
  ...more,
})
const list = (rows: VisitRow[], mayRevoke = true) => mount(VisitList, { props: { visits: rows, siteId: 1, mayRevoke } })
const press = (wrapper: { findAll: ReturnType<typeof mount>['findAll'] }, words: string) =>
  wrapper
    .findAll('button')
    .find((one) => one.text() === words)!
    .trigger('click')
const refused = (status: number, detail: string, reasons: { code: string; sentence: string; field?: string }[] = []) => ({
  status,
  body: { type: 'about:blank', title: 'No', status, detail, reasons },
})

describe('the visits of an order', () => {
  test('say what a vendor brought along, beneath the visit it was brought to, and nothing where nothing was', () => {
    const brought = [
      { name: 'Door gasket', quantity: '2', unit: 'pc' },
      { name: 'Refrigerant R-448A', quantity: '1.500', unit: 'kg' },
    ]
    const wrapper = list([visit({ brought }), visit({ id: 8, who: 'Bram Oyelaran', vendorId: null, technicianId: 1 })])
    expect(wrapper.findAll('.brought').map((row) => row.text())).toEqual(['Brought along: 2 pc Door gasket, 1.5 kg Refrigerant R-448A'])
    expect(wrapper.findAll('tbody tr')).toHaveLength(3)
  })

  test('tell how a vendor stands to it; of our own people there is nothing to tell', () => {
    const states = [
      visit(),
      visit({ silent: true }),
      visit({ answer: 'accepted' }),
      visit({ state: 'recalled', answer: 'declined' }),
      visit({ vendorId: null }),
    ]
    const said = list(states.map((one, id) => ({ ...one, id })))
    expect(said.findAll('tbody tr td:nth-child(4)').map((cell) => cell.text().replace(/^\w+(, )?/, ''))).toEqual([
      'not answered yet',
      'no answer',
      'accepted',
      'declined',
      '',
    ])
    expect(said.findAll('.wrong')).toHaveLength(1)
  })

  test('a pass is taken back by who may; where that fails it is said that the link still works', async () => {
    const pass = { id: 5, expiresAt: '2026-12-23T11:00:00.000Z', revokedAt: null }
    expect(list([visit({ pass })], false).findAll('button')).toHaveLength(0)
    const sent = answering({ 'POST /api/passes/5/revoke': { body: {} } })
    const wrapper = list([visit({ pass })])
    await press(wrapper, 'Take back')
    await flushPromises()
    expect(sent).toHaveLength(1)
    expect(wrapper.emitted('changed')).toHaveLength(1)
    answering({ 'POST /api/passes/5/revoke': refused(409, 'Somebody was quicker.') })
    await press(wrapper, 'Take back')
    await flushPromises()
    expect(wrapper.emitted('changed')).toHaveLength(1)
    expect(useUndo().said?.sentence).toBe('Somebody was quicker. The link still works.')
    expect(list([visit({ pass: { ...pass, revokedAt: '2026-11-23T10:00:00.000Z' } })]).text()).toContain('taken back')
  })
})

describe('the time a vendor proposes', () => {
  const proposed = { start: '2026-11-24T09:00:00.000Z', end: '2026-11-24T10:00:00.000Z' }
  const box = () => mount(ProposalBox, { props: { siteId: 1, visit: { id: 7, version: 3 }, who: 'Ohm and Daughters', proposed, note: 'The van is back then' } })

  test('is taken as they propose it', async () => {
    const sent = answering({ 'POST /api/board/1/rearrange': { body: { undo: { changes: [], adds: [], drops: [] } } } })
    const wrapper = box()
    expect(wrapper.text()).toContain('“The van is back then”')
    await press(wrapper, 'Take their time')
    await flushPromises()
    expect(sent.map(({ body }) => body)).toEqual([{ changes: [{ visitId: 7, version: 3, ...proposed }] }])
    expect(wrapper.emitted('done')).toHaveLength(1)
  })

  test('what speaks against it asks for a reason, with which it is sent under a key of its own', async () => {
    const sent = answering({
      'POST /api/board/1/rearrange': ({ body }) =>
        body.despite
          ? { body: { undo: { changes: [], adds: [], drops: [] } } }
          : refused(422, 'A reason is needed.', [{ code: 'window', sentence: 'It was agreed for Mon 23 Nov, 11:00 to 13:00.', field: 'despite' }]),
    })
    const wrapper = box()
    await press(wrapper, 'Take their time')
    await flushPromises()
    expect(wrapper.find('[aria-label="Speaks against it"]').text()).toContain('It was agreed for')
    expect(wrapper.find('[role="alert"]').exists()).toBe(false)
    await wrapper.find('#proposal-said').setValue(' Nobody else can come ')
    await press(wrapper, 'Take their time')
    await flushPromises()
    expect(sent[1]!.body.despite).toBe('Nobody else can come')
    expect(sent[1]!.key).not.toBe(sent[0]!.key)
    expect(wrapper.emitted('done')).toHaveLength(1)
  })

  test('what nothing overrules is said; ours is kept with a line for them', async () => {
    const sent = answering({
      'POST /api/board/1/rearrange': refused(409, 'Somebody moved it meanwhile.'),
      'POST /api/visits/7/keep-time': { body: {} },
    })
    const wrapper = box()
    await press(wrapper, 'Take their time')
    await flushPromises()
    expect(wrapper.find('[role="alert"]').text()).toBe('Somebody moved it meanwhile.')
    await press(wrapper, 'Keep ours')
    await wrapper.find('#proposal-said').setValue('The hall is closed on Tuesday')
    await press(wrapper, 'Ask them again for ours')
    await flushPromises()
    expect(sent.at(-1)!.body).toEqual({ version: 3, note: 'The hall is closed on Tuesday' })
    expect(wrapper.emitted('done')).toHaveLength(1)
  })
})
