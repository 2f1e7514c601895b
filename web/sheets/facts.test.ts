/* eslint-disable vue/one-component-per-file -- stand-ins of a test */
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { computed, defineComponent, h, nextTick, ref } from 'vue'
import { FactRow, jumpTo, MoneyField, TextField } from '#web/kit'
import { MoveBar, provideSheet, SectionList, SheetFact } from '#web/sheets'
import type { OfferedMove, SheetField, SheetSection } from '#web/sheets'

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => ((document.body.innerHTML = ''), sessionStorage.clear()))

Element.prototype.scrollIntoView = () => undefined
const saved = jest.fn()
const access = (more: object = {}, slot?: object) =>
  mount(FactRow, {
    props: { name: 'access', label: 'Getting in', says: 'Key 4', ...more },
    slots: { default: () => h(TextField, { name: 'access', label: 'Getting in', value: 'Key 4', onSave: saved, ...slot }) },
    attachTo: document.body,
  })
const value = (row: ReturnType<typeof access>) => row.find('.fact-value')
beforeEach(() => saved.mockClear())

describe('a fact', () => {
  test('is text that says its name and value; pressed it becomes its field, which has the keyboard', async () => {
    const row = access()
    expect([value(row).text(), value(row).attributes('aria-label'), row.find('input').exists()]).toEqual(['Key 4', 'Getting in: Key 4', false])
    await value(row).trigger('click')
    await nextTick()
    expect(document.activeElement?.id).toBe('f-access')
  })

  test('Enter keeps what was typed and comes back to the fact', async () => {
    const row = access()
    await value(row).trigger('click')
    await row.find('input').setValue('Key 9')
    await row.find('input').trigger('keydown', { key: 'Enter' })
    await nextTick()
    expect(saved).toHaveBeenCalledWith('Key 9', 'Key 4')
    expect([row.classes('opened'), document.activeElement === value(row).element]).toEqual([false, true])
  })

  test('Esc leaves it as it was, and what was typed can be had again', async () => {
    const row = access()
    await value(row).trigger('click')
    await row.find('input').setValue('Key 9')
    await row.find('input').trigger('keydown', { key: 'Escape' })
    await nextTick()
    expect(saved).not.toHaveBeenCalled()
    expect(row.classes('opened')).toBe(false)
    await value(row).trigger('click')
    expect(row.text()).toContain('Bring back what you typed')
  })

  test('going on with Tab closes it; a refused field stays open beside its sentence', async () => {
    const next = document.body.appendChild(document.createElement('button'))
    const row = access()
    await value(row).trigger('click')
    await row.find('input').trigger('focusout', { relatedTarget: next })
    await nextTick()
    expect(row.classes('opened')).toBe(false)
    const refused = access({ problem: 'This is needed.' }, { problem: 'This is needed.' })
    await value(refused).trigger('click')
    await refused.find('input').trigger('focusout', { relatedTarget: next })
    expect([refused.classes('opened'), refused.find('.problem').text()]).toEqual([true, 'This is needed.'])
  })

  test('what cannot be read as an amount stays open with what was typed; refused after it was left, it opens again', async () => {
    const next = document.body.appendChild(document.createElement('button'))
    const row = mount(FactRow, {
      props: { name: 'estimateMinor', label: 'Estimate', says: '5.00', problem: undefined as string | undefined },
      slots: { default: () => h(MoneyField, { name: 'estimateMinor', label: 'Estimate', value: 500 }) },
      attachTo: document.body,
    })
    await row.find('.fact-value').trigger('click')
    await row.find('input').setValue('abc')
    await row.find('input').trigger('blur')
    await row.find('input').trigger('focusout', { relatedTarget: next })
    await nextTick()
    expect([row.classes('opened'), row.find('input').element.value, row.find('.problem').text()]).toEqual([true, 'abc', 'Write a number like 1250.50.'])
    await row.find('input').setValue('7')
    await row.find('input').trigger('blur')
    await row.find('input').trigger('focusout', { relatedTarget: next })
    await nextTick()
    expect(row.classes('opened')).toBe(false)
    await row.setProps({ problem: 'It is over everybody’s limit.' })
    expect([row.classes('opened'), row.find('input').element.value]).toEqual([true, '7.00'])
  })

  test('what may not be changed says why when pressed, and never becomes a field', async () => {
    const row = access({ whyNot: 'The order is over; this stays as it was.' })
    await value(row).trigger('click')
    expect([row.find('[role="status"]').text(), row.find('input').exists()]).toEqual(['The order is over; this stays as it was.', false])
    await value(row).trigger('click')
    expect(row.find('[role="status"]').exists()).toBe(false)
  })

  test('a reason leads into it: the fact turns into its field', async () => {
    const row = access({ also: 'contact' })
    jumpTo('contact')
    await nextTick()
    await nextTick()
    expect([row.classes('opened'), document.activeElement?.id]).toEqual([true, 'f-access'])
  })

  test('nothing known reads as a dash and is called nothing', () => {
    const row = access({ says: null })
    expect([value(row).text(), value(row).attributes('aria-label')]).toEqual(['–', 'Getting in: nothing'])
  })
})

interface Sheet {
  state: 'draft' | 'ready'
  visits: string[]
  access: string | null
  tradeId: number | null
}
const sheet = ref<Sheet>({ state: 'draft', visits: [], access: 'Key 4', tradeId: 2 })
const within = (whyNot: (field: string) => string | undefined, render: () => unknown) =>
  mount(
    defineComponent({
      setup() {
        provideSheet({
          sheet: computed(() => sheet.value),
          whyNot,
          save: saved,
          saveFrom: saved,
          sentenceAt: () => undefined,
          reload: () => Promise.resolve(),
          begun: ref(null),
        })
        return render as never
      },
    }),
    { attachTo: document.body },
  )

describe('a field of the Sheet', () => {
  const trade: SheetField<Sheet> = { name: 'tradeId', label: 'Trade', kind: 'pick', choices: () => [{ value: 2, label: 'Plumbing' }] }
  const money: SheetField<Sheet> = { name: 'estimate', label: 'Estimate', kind: 'money', value: () => 123_456 }

  test('reads as the words of its choice, or as the amount; open it is the field at once, where that may be', () => {
    const rows = within(
      () => undefined,
      () => [h(SheetFact as never, { field: trade }), h(SheetFact as never, { field: money }), h(SheetFact as never, { field: trade, open: true })],
    )
    expect(rows.findAll('.fact-value').map((one) => one.text())).toEqual(['Plumbing', '1,234.56'])
    expect(rows.findAll('#f-tradeId')).toHaveLength(1)
    const fixed = within(
      () => 'Who plans the order writes this.',
      () => h(SheetFact as never, { field: trade, open: true }),
    )
    expect(fixed.find('#f-tradeId').exists()).toBe(false)
    expect(fixed.find('.fact-value').text()).toBe('Plumbing')
  })
})

describe('the sections of a Sheet', () => {
  const Part = defineComponent({ props: { now: Boolean }, render: ({ now }: { now: boolean }) => h('p', now ? 'decided now' : 'to be read') })
  const SECTIONS: SheetSection<Sheet>[] = [
    { anchor: 'facts', title: 'Facts', component: Part },
    { anchor: 'visits', title: 'Visits', opensAt: ['ready'], empty: ({ visits }) => (visits.length ? null : 'Nobody has been sent yet.'), component: Part },
    { anchor: 'plan', title: 'Plan', opensAt: ['draft'], shown: ({ state }) => state === 'draft', component: Part },
  ]
  const list = (state: Sheet['state'], visits: string[] = [], index = false) =>
    mount(SectionList as never, { props: { sheet: { ...sheet.value, state, visits }, sections: SECTIONS, index } as never })
  const said = (shown: ReturnType<typeof list>) => shown.findAll('section').map((one) => one.text())

  test('what is decided where it stands comes first, open; what has nothing in it is one line', () => {
    expect(said(list('draft'))).toEqual(['Plandecided now', 'Factsto be read', 'VisitsNobody has been sent yet.'])
    expect(said(list('ready'))).toEqual(['Visitsdecided now', 'Factsto be read'])
    expect(said(list('draft', ['Bram']))).toEqual(['Plandecided now', 'Factsto be read', 'Visitsto be read'])
  })

  test('the index names those that are shown, in their order', () => {
    expect(
      list('ready', [], true)
        .findAll('a')
        .map((one) => one.text()),
    ).toEqual(['Visits', 'Facts'])
  })
})

describe('the row of moves', () => {
  const plain = (move: string, more: Partial<OfferedMove> = {}): OfferedMove => ({ move, label: move, key: '', reasons: [], reason: 'none', ...more })
  const no = { reasons: [{ code: 'no', sentence: 'Stop the clock first.', field: 'stints' }] }
  const bar = (moves: OfferedMove[]) => mount(MoveBar, { props: { moves } })
  const words = (shown: ReturnType<typeof bar>) =>
    shown
      .findAll('.buttons')[0]!
      .findAll('button')
      .map((one) => one.text())

  test('what leads on stands first and filled, five at most are in sight, what is not possible waits under More with its reason', async () => {
    const shown = bar([plain('Hold', no), plain('One'), plain('Two'), plain('Three'), plain('Four'), plain('Five'), plain('Approve', { onward: true })])
    expect(words(shown)).toEqual(['Approve', 'One', 'Two', 'Three', 'Four', 'More'])
    expect(shown.find('[data-move="Approve"]').classes().join()).toContain('primary')
    await shown.findAll('button').at(-1)!.trigger('click')
    expect(shown.find('.rest').text()).toBe('FiveNot possible now:HoldStop the clock first.')
    await shown.find('.rest dd button').trigger('click')
    expect(shown.emitted('jump')).toEqual([['stints']])
    expect(shown.find('.rest').exists()).toBe(false)
  })

  test('what would lead on and is not possible yet stays in sight; a press says why', async () => {
    const shown = bar([plain('Send back'), plain('Approve', { onward: true, ...no })])
    expect(words(shown)).toEqual(['Approve', 'Send back'])
    await shown.find('[data-move="Approve"]').trigger('click')
    expect(shown.find('.why').text()).toContain('Stop the clock first.')
  })

  test('what opens something opens it and is no move', async () => {
    const opens = jest.fn()
    const shown = bar([plain('Dispatch', { opens })])
    await shown.find('button').trigger('click')
    expect([opens.mock.calls.length, shown.emitted('go')]).toEqual([1, undefined])
  })
})
