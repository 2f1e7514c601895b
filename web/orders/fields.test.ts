import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { nextTick } from 'vue'
import { useActs, jumpTo, MoneyField, TextField } from '#web/kit'
import type { EventKind } from '#core/events'
import { ConflictBox, MoveBar, TimelineList } from '#web/sheets'
import type { OfferedMove } from '#web/sheets'
import ShareFields from './ShareFields.vue'

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => (document.body.innerHTML = ''))

describe('a text that saves when it is left', () => {
  const field = (value: string | null) => mount(TextField, { props: { name: 'access', label: 'Getting in', value } })

  test('sends what was typed with what stood there before, once, without the blanks around it', async () => {
    const text = field('Key 4')
    await text.find('input').setValue('  Key 9 ')
    await text.find('input').trigger('blur')
    await text.find('input').trigger('blur')
    expect(text.emitted('save')).toEqual([['Key 9', 'Key 4']])
  })

  test('says nothing when nothing changed, and Esc brings back what was saved', async () => {
    const text = field('Key 4')
    await text.find('input').trigger('blur')
    await text.find('input').setValue('Oops')
    await text.find('input').trigger('keydown', { key: 'Escape' })
    await text.find('input').trigger('blur')
    expect(text.emitted('save')).toBeUndefined()
    expect(text.find('input').element.value).toBe('Key 4')
  })

  test('a change from elsewhere shows at once, but never over what is being typed', async () => {
    const text = field('Key 4')
    await text.setProps({ value: 'Key 5' })
    expect(text.find('input').element.value).toBe('Key 5')
    await text.find('input').setValue('Key 6, ring twice')
    await text.setProps({ value: 'Key 7' })
    expect(text.find('input').element.value).toBe('Key 6, ring twice')
    await text.find('input').trigger('blur')
    expect(text.emitted('save')).toEqual([['Key 6, ring twice', 'Key 5']])
  })

  test('the sentence of a refusal stands at the field', () => {
    const text = mount(TextField, { props: { name: 'summary', label: 'Summary', value: '', problem: 'This is needed.' } })
    expect(text.find('.problem').text()).toBe('This is needed.')
    expect(text.find('input').attributes('aria-invalid')).toBe('true')
    expect(text.find('label').attributes('for')).toBe(text.find('input').attributes('id'))
  })
})

describe('an amount as people write it', () => {
  test.each([
    ['1250', 125_000],
    ['1,250.5', 125_050],
    [' 0.05 ', 5],
    ['.9', 90],
    ['12,34', 1_234],
    ['12,5', 1_250],
    ['1.234,56', 123_456],
    ['', null],
  ])('“%s” is %s minor units', async (typed, minor) => {
    const money = mount(MoneyField, { props: { name: 'estimateMinor', label: 'Estimate', value: 777 } })
    await money.find('input').setValue(typed)
    await money.find('input').trigger('blur')
    expect(money.emitted('save')).toEqual([[minor, 777]])
  })

  test.each(['12.345', '-5', 'ten', '1.2.3', '€5', '1,23,4'])('“%s” is not taken, and says how to write it', async (typed) => {
    const money = mount(MoneyField, { props: { name: 'estimateMinor', label: 'Estimate', value: null } })
    await money.find('input').setValue(typed)
    await money.find('input').trigger('blur')
    expect(money.emitted('save')).toBeUndefined()
    expect(money.find('.problem').text()).toMatch(/^Write (a number like 1250.50|at most 2 decimals|nought or more)\.$/)
    expect(money.find('input').element.value).toBe(typed)
  })
})

test('what was typed is shown back as it was understood, and said where it could have been another', async () => {
  const money = mount(MoneyField, { props: { name: 'estimateMinor', label: 'Estimate', value: null } })
  const field = money.find('input')
  await field.setValue('12,34')
  await field.trigger('blur')
  expect([field.element.value, money.find('[role="status"]').exists()]).toEqual(['12.34', false])
  await field.setValue('1,234')
  await field.trigger('blur')
  expect([field.element.value, money.find('[role="status"]').text()]).toEqual(['1,234.00', 'Read as 1,234.00.'])
})

describe('who pays', () => {
  const shares = (shareBps: number[]) =>
    mount(ShareFields, {
      props: {
        shares: shareBps.map((shareBp, index) => ({ payerId: index + 1, payerCode: `5${index}00`, payerName: 'P', shareBp })),
        choices: [1, 2, 3].map((value) => ({ value, label: `5${value - 1}00 P` })),
      },
      global: { stubs: { PickField: true } },
    })

  test('is saved only when the shares make a whole, and says what they make until then', async () => {
    const fields = shares([10_000])
    await fields.find('.acts button').trigger('click')
    expect(fields.emitted('save')).toBeUndefined()
    const [first] = fields.findAll('input')
    await first!.setValue('66,67')
    await first!.trigger('blur')
    expect(fields.emitted('save')).toBeUndefined()
    expect(fields.find('.problem').text()).toContain('The shares add to 66.67 %')
  })

  test('one of two taken away leaves the other with all of it', async () => {
    const fields = shares([6_000, 4_000])
    expect(fields.find('.problem').exists()).toBe(false)
    await fields
      .findAll('button')
      .find((one) => one.text() === 'Remove')!
      .trigger('click')
    expect(fields.emitted('save')).toEqual([[[{ payerId: 2, shareBp: 10_000 }]]])
  })

  test.each(['150', '-10', 'half', '33.333'])('a share of “%s” is never sent', async (typed) => {
    const fields = shares([6_000, 4_000])
    await fields.findAll('input')[0]!.setValue(typed)
    await fields.findAll('input')[0]!.trigger('blur')
    expect(fields.emitted('save')).toBeUndefined()
    expect(fields.find('.problem').exists()).toBe(true)
  })
})

describe('the moves of a Sheet', () => {
  const MOVES: OfferedMove[] = [
    { move: 'submit', label: 'Submit', key: 's', reasons: [{ code: 'team', sentence: 'Choose the team.', field: 'teamId' }], reason: 'none', onward: true },
    { move: 'cancel', label: 'Cancel', key: 'x', reasons: [], reason: 'required', reasonLabel: 'Why is it called off' },
    { move: 'discard', label: 'Discard', key: 'z', reasons: [], reason: 'none' },
    { move: 'hold', label: 'Hold', key: 'h', reasons: [], reason: 'optional', choices: { name: 'What for', options: [{ value: 'part', label: 'Part' }] } },
  ]
  const bar = () => mount(MoveBar, { props: { moves: MOVES }, attachTo: document.body })
  const button = (wrapper: ReturnType<typeof bar>, words: string) => wrapper.findAll('button').find((one) => one.text().startsWith(words))!

  test('one that is not possible says why, and the reason leads to its field', async () => {
    const moves = bar()
    expect(button(moves, 'Submit').attributes('aria-disabled')).toBe('true')
    await button(moves, 'Submit').trigger('click')
    expect(moves.find('.why').text()).toContain('“Submit” is not possible yet')
    await moves.find('.why button').trigger('click')
    expect(moves.emitted('jump')).toEqual([['teamId']])
    expect(moves.emitted('go')).toBeUndefined()
  })

  test('one that needs a reason asks for it, and does not go without', async () => {
    const moves = bar()
    await button(moves, 'Cancel').trigger('click')
    await nextTick()
    expect(moves.find('form').text()).toContain('Why is it called off (needed)')
    expect(document.activeElement?.id).toBe('move-reason')
    await moves.find('form').trigger('submit')
    expect(moves.find('.problem').text()).toBe('Write it in a few words.')
    await moves.find('textarea').setValue('  Works again. ')
    await moves.find('form').trigger('keydown', { key: 'Enter', ctrlKey: true })
    expect(moves.emitted('go')).toEqual([['cancel', { reason: 'Works again.', choice: undefined }]])
    expect(moves.find('form').exists()).toBe(false)
  })

  test('one that asks nothing goes at once; one with a choice carries it', async () => {
    const moves = bar()
    await button(moves, 'Discard').trigger('click')
    await button(moves, 'Hold').trigger('click')
    await moves.find('form').trigger('submit')
    expect(moves.emitted('go')).toEqual([
      ['discard', {}],
      ['hold', { reason: undefined, choice: 'part' }],
    ])
  })

  test('Esc leaves the question, and every move is in the palette under its key', async () => {
    const moves = bar()
    await button(moves, 'Cancel').trigger('click')
    await moves.find('form').trigger('keydown', { key: 'Escape' })
    expect(moves.find('form').exists()).toBe(false)
    expect(
      useActs()
        .all()
        .map((act) => act.key),
    ).toEqual(['s', 'x', 'z', 'h'])
    useActs().all()[2]!.run()
    expect(moves.emitted('go')).toEqual([['discard', {}]])
  })
})

describe('two people changed the same field', () => {
  const box = () =>
    mount(ConflictBox, {
      props: {
        conflict: {
          version: 4,
          fields: [
            { field: 'summary', theirs: 'Theirs', yours: 'Mine' },
            { field: 'access', theirs: null, yours: 'Key 4' },
          ],
          sent: {},
        },
        names: { summary: 'Summary', access: 'Getting in' },
      },
      attachTo: document.body,
    })

  test('both values of each are shown, and each is chosen on its own', async () => {
    const wrapper = box()
    const text = document.body.textContent
    for (const words of ['Summary', 'Theirs', 'Mine', 'Getting in', 'nothing', 'Key 4']) expect(text).toContain(words)
    const radios = [...document.querySelectorAll<HTMLInputElement>('input[type=radio]')]
    expect(radios.map((one) => one.checked)).toEqual([false, true, false, true])
    radios[2]!.click()
    await nextTick()
    ;[...document.querySelectorAll('button')].find((one) => one.textContent === 'Save this choice')!.click()
    expect(wrapper.emitted('settle')).toEqual([[['summary']]])
  })

  test('keeping all of theirs saves nothing of ours', () => {
    const wrapper = box()
    ;[...document.querySelectorAll('button')].find((one) => one.textContent === 'Keep all of theirs')!.click()
    expect(wrapper.emitted('settle')).toEqual([[[]]])
  })
})

describe('the timeline', () => {
  const entry = (kind: EventKind, more: object = {}) => ({
    id: 1,
    at: '2026-11-20T09:05:00Z',
    kind,
    who: 'Maren Quill',
    from: null,
    to: null,
    reason: null,
    details: null,
    ...more,
  })
  const text = (kind: EventKind, more: object = {}) =>
    mount(TimelineList, { props: { entries: [entry(kind, more)] } })
      .find('li div')
      .text()
      .replace(/\s+/g, ' ')

  test.each<[EventKind, object, string]>([
    ['order.approve', { from: 'to_approve', to: 'ready' }, 'Maren Quill approved it (To approve → Ready)'],
    ['order.cancel', { reason: 'Works again.', from: 'draft', to: 'cancelled' }, 'Maren Quill cancelled it (Draft → Cancelled)Works again.'],
    ['field.stint', { details: { stint: 'travel' } }, 'Maren Quill set the clock to travel'],
    ['field.part', { details: { quantity: 2, unit: 'pc', part: 'LED tube' } }, 'Maren Quill used 2 pc LED tube'],
    ['field.leave', { details: { result: 'return' } }, 'Maren Quill left the job needs a return visit'],
    ['vendor.bill', { details: { number: 'B-7', netMinor: 28_700 } }, 'Maren Quill entered a bill B-7, 287.00 before tax'],
    ['order.edit', { details: { fields: { estimateMinor: { from: null, to: 20_000 } } } }, 'Maren Quill changed the order estimate from nothing to 200.00'],
    [
      'order.edit',
      { details: { fields: { teamId: { from: 1, to: 2 }, description: { from: 'a', to: 'b' } } } },
      'Maren Quill changed the order team, description',
    ],
    ['request.accept', { details: { order: 'W-31001' } }, 'Maren Quill accepted it as W-31001'],
    ['order.archive', { from: 'closed', to: 'closed' }, 'Maren Quill archived it'],
  ])('%s', (kind, more, sentence) => {
    expect(text(kind, more)).toBe(sentence)
  })
})

test('a reason leads to its field by any of its three names, and the field gets the keyboard', () => {
  Element.prototype.scrollIntoView = () => undefined
  document.body.innerHTML =
    '<div id="f-team"><input id="inner"></div><section id="s-cost"><a href="#x" id="link">x</a></section><p data-field="bills" tabindex="0" id="bills"></p>'
  for (const [field, focused] of [
    ['team', 'inner'],
    ['cost', 'link'],
    ['bills', 'bills'],
  ] as const) {
    jumpTo(field)
    expect(document.activeElement?.id).toBe(focused)
  }
  expect(() => jumpTo('nothing')).not.toThrow()
})
