import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { h } from 'vue'
import { hazardsAsRead } from '#core/field'
import { STINT_KINDS } from '#core/ledger'
import { CallProblem, PhonePage, setServerNow, useLoading } from '#web/kit'
import { choose, chosenIn } from '../../tests/kit/choose'
import { settled } from '../../tests/kit/fetch'
import BillForm from '../vendors/BillForm.vue'
import ClockCard from './ClockCard.vue'
import FinishForm from './FinishForm.vue'
import { refuseUnsafeHere } from './localRules'
import NoteForm from './NoteForm.vue'
import SafetyCard from './SafetyCard.vue'
import { usePhoneJob } from './usePhoneJob'

beforeEach(() => setActivePinia(createPinia()))
/** What is loaded beside the form comes a little later. */
async function shown(isThere: () => boolean): Promise<void> {
  for (let n = 0; n < 40 && !isThere(); n++) await new Promise((resolve) => setTimeout(resolve, 25))
}
const refusal = (sentence: string, field?: string) =>
  new CallProblem({ type: 'about:blank', title: 'No', status: 422, detail: 'Not saved.', reasons: [{ code: 'x', sentence, ...(field ? { field } : {}) }] })

describe('the clock', () => {
  const card = (more: object = {}) => mount(ClockCard, { props: { running: null, stints: [], over: false, busy: false, ...more } })

  test('starts as any kind of time with one press, work first', async () => {
    const clock = card()
    expect(clock.text()).toContain('The clock is not running.')
    expect(clock.findAll('button').map((one) => one.text())).toHaveLength(STINT_KINDS.length)
    await clock.find('button.n-button--primary-type').trigger('click')
    expect(clock.emitted('switch')).toEqual([['work']])
  })

  test('shows what runs and since when, and stops', async () => {
    setServerNow('2026-11-23T10:30:00Z')
    const clock = card({ running: { kind: 'travel', startAt: '2026-11-23T10:05:00Z' } })
    expect(clock.find('.run').text()).toBe('Travel, 25 min')
    expect(clock.find('[aria-pressed="true"]').text()).toBe('Travel')
    await clock.find('.stop').trigger('click')
    expect(clock.emitted('stop')).toHaveLength(1)
  })

  test('lets whoever worked put today’s time right, with a reason; what began the evening before stays there', async () => {
    setServerNow('2026-11-23T10:30:00Z')
    const stints = [
      { id: 1, kind: 'work' as const, minutes: 60, startAt: '2026-11-22T09:00:00Z', endAt: '2026-11-22T10:00:00Z' },
      { id: 2, kind: 'work' as const, minutes: 60, startAt: '2026-11-23T09:00:00Z', endAt: '2026-11-23T10:00:00Z' },
      { id: 3, kind: 'travel' as const, minutes: 60, startAt: '2026-11-22T23:30:00Z', endAt: '2026-11-23T00:30:00Z' },
    ]
    expect(card({ stints }).findAll('.things li')).toHaveLength(0)
    const clock = card({ stints, corrects: true })
    expect(clock.findAll('.things li')).toHaveLength(2)
    const fill = async (from: string, to: string, why: string) => {
      for (const [id, text] of [
        ['right-start', from],
        ['right-end', to],
        ['right-why', why],
      ] as const)
        await clock.find(`#${id}`).setValue(text)
      await clock.find('.things form').trigger('submit')
    }
    await clock.findAll('.things button')[0]!.trigger('click')
    await fill('9.5', '10:00', 'Forgot')
    expect(clock.text()).toContain('Write times like 16:30.')
    await fill('0915', '10:10', 'Started later')
    expect(clock.emitted('correct')).toEqual([
      [{ stintId: 2, startAt: '2026-11-23T09:15:00.000Z', endAt: '2026-11-23T10:10:00.000Z', reason: 'Started later' }],
    ])
    // Something else came in: what is typed stays; once the time is another, the form is done.
    await clock.setProps({ stints: stints.map((one) => ({ ...one })) })
    expect((clock.find('#right-why').element as HTMLInputElement).value).toBe('Started later')
    await clock.setProps({ stints: stints.map((one) => (one.id === 2 ? { ...one, startAt: '2026-11-23T09:15:00Z' } : one)) })
    expect(clock.find('.things form').exists()).toBe(false)
    // What is left as it is keeps its seconds.
    await clock.setProps({ stints: stints.map((one) => (one.id === 2 ? { ...one, startAt: '2026-11-23T09:15:42Z' } : one)) })
    await clock.findAll('.things button')[0]!.trigger('click')
    await fill('09:15', '10:05', 'Left later')
    expect(clock.emitted('correct')!.at(-1)).toEqual([expect.objectContaining({ startAt: '2026-11-23T09:15:42.000Z', endAt: '2026-11-23T10:05:00.000Z' })])
    await clock.find('.things form .kinds button:last-child').trigger('click')
    await clock.findAll('.things button')[1]!.trigger('click')
    await fill('23:45', '00:30', 'Left later')
    expect(clock.emitted('correct')!.at(-1)).toEqual([expect.objectContaining({ startAt: '2026-11-22T23:45:00.000Z', endAt: '2026-11-23T00:30:00.000Z' })])
  })

  test('adds up what was logged by kind, and offers nothing once the job is left', () => {
    const stints = [
      { id: 1, kind: 'work', minutes: 40 },
      { id: 2, kind: 'travel', minutes: 10 },
      { id: 3, kind: 'work', minutes: 25 },
      { id: 4, kind: 'break', minutes: null },
    ]
    const clock = card({ stints, over: true })
    expect(clock.text()).toContain('You have left this job.')
    expect(clock.text()).toMatch(/Travel 10 min, Work 1 h 5 min|Work 1 h 5 min, Travel 10 min/)
    expect(clock.text()).not.toContain('Break')
    expect(clock.findAll('button')).toHaveLength(0)
  })
})

describe('hazards', () => {
  const FAN = { hazard: 'Turning fan', control: 'Isolate', permit: 'isolation' as const }
  const card = (more: object = {}) =>
    mount(SafetyCard, { props: { job: { hazards: [FAN], hazardsReadAt: null, permits: [], ...more }, over: false, busy: false, problem: null } })

  test('whoever pressed by key that they read it goes on from what stands there then', async () => {
    const job = { hazards: [FAN], hazardsReadAt: null, permits: [] }
    const card = mount(SafetyCard, { props: { job, over: false, busy: false, problem: null }, attachTo: document.body })
    card.find('button').element.focus()
    await card.find('button').trigger('click')
    expect(card.emitted('read')).toHaveLength(1)
    await card.setProps({ job: { ...job, hazardsReadAt: '2026-11-23T10:31:00Z' } })
    expect(document.activeElement!.textContent).toContain('You read them')
    card.unmount()
  })

  test('are read first, as they stand; then the permit they take is written down with number and times', async () => {
    setServerNow('2026-11-23T10:30:00Z')
    const unread = card()
    expect(unread.text()).toContain('Turning fan: Isolate Takes a permit: electrical isolation.')
    expect(unread.find('form').exists()).toBe(false)
    await unread.find('button').trigger('click')
    expect(unread.emitted('read')).toEqual([[{ read: hazardsAsRead([FAN]) }]])
    const read = card({ hazardsReadAt: '2026-11-23T10:31:00Z' })
    expect(read.text()).toContain('You read them 10:31')
    await read.find('#permit-number').setValue(' P-12 ')
    await read.find('#permit-until').setValue('1630')
    await read.find('form').trigger('submit')
    const held = { kind: 'isolation', number: 'P-12', fromAt: '2026-11-23T10:30:00.000Z', untilAt: '2026-11-23T16:30:00.000Z' }
    expect(read.emitted('hold')).toEqual([[held]])
    // What ends earlier on the clock than it begins ends tomorrow.
    await read.find('#permit-number').setValue('P-13')
    await read.find('#permit-until').setValue('02:00')
    await read.find('form').trigger('submit')
    expect(read.emitted('hold')!.at(-1)).toEqual([expect.objectContaining({ untilAt: '2026-11-24T02:00:00.000Z' })])
    await read.find('#permit-number').setValue('P-14')
    await read.find('#permit-until').setValue('later')
    await read.find('form').trigger('submit')
    expect([read.find('[role="alert"]').text(), read.emitted('hold')!.length]).toEqual(['Write times like 16:30.', 2])
    const whole = card({ hazardsReadAt: '2026-11-23T10:31:00Z', permits: [{ id: 1, ...held }] })
    expect([whole.find('form').exists(), whole.text()]).toEqual([false, expect.stringContaining('Electrical isolation P-12, 10:30 to 16:30') as string])
  })

  test('are said at once where there is no server to ask', () => {
    const job = { hazards: [FAN], hazardsReadAt: null, permits: [] }
    expect(() => refuseUnsafeHere(job, 'travel')).not.toThrow()
    expect(() => refuseUnsafeHere(job, 'work')).toThrow('Read the hazards')
    expect(() => refuseUnsafeHere({ ...job, hazardsReadAt: '2026-11-23T10:31:00Z' }, 'work')).toThrow('takes a permit')
  })
})

describe('leaving a job', () => {
  const form = async (sentenceAt: (field: string) => string | undefined = () => undefined, more: object = {}) => {
    const wrapper = mount(FinishForm, { props: { outcome: { symptom: 'No power', cause: null, fix: null }, busy: false, sentenceAt, ...more } })
    await settled()
    return wrapper
  }
  const offered = (wrapper: Awaited<ReturnType<typeof form>>, id: string) =>
    wrapper
      .findAllComponents({ name: 'ListEntry' })
      .find((one) => one.props('id') === id)!
      .props('options')
      .map(({ label }: { label: string }) => label) as string[]

  test('done asks for symptom, cause and fix from short lists, with what is known filled in', async () => {
    const wrapper = await form()
    expect(chosenIn(wrapper, 'out-symptom')).toBe('No power')
    await choose(wrapper, 'out-cause', 'Wear')
    await choose(wrapper, 'out-fix', 'Replaced')
    await wrapper.find('textarea').setValue('Both tubes were old.')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('finish')).toEqual([[{ result: 'done', symptom: 'No power', cause: 'Wear', fix: 'Replaced', note: 'Both tubes were old.' }, null]])
  })

  test('another way of leaving asks for none of it; a refusal stands at its field', async () => {
    const wrapper = await form((field) => (field === 'cause' ? 'Choose why.' : undefined))
    expect(wrapper.find('.problem').text()).toBe('Choose why.')
    await choose(wrapper, 'result', 'return')
    expect(wrapper.findAllComponents({ name: 'Select' })).toHaveLength(0)
    expect(wrapper.find('button.n-button--primary-type').text()).toBe('Leave')
  })

  test('what can be wrong fits the asset, until somebody looks for more; what was said before is among it', async () => {
    const wrapper = await form(undefined, { classCode: 'B3010' })
    expect(offered(wrapper, 'out-symptom')).toEqual(expect.arrayContaining(['No power', 'Leaking', 'Blocked']))
    expect(offered(wrapper, 'out-symptom')).not.toContain('Noisy')
    await wrapper.findAll('button').find((one) => one.text() === 'It is something else')!.trigger('click') // prettier-ignore
    expect(offered(wrapper, 'out-symptom')).toContain('Noisy')
  })

  test('another visit says when, and handing over to whom', async () => {
    const wrapper = await form(undefined, { onSite: true, crew: [{ id: 2, name: 'Sunniva Teague' }] })
    await choose(wrapper, 'result', 'handed_over')
    await choose(wrapper, 'out-hand', 2)
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('finish')![0]).toEqual([expect.objectContaining({ result: 'handed_over', handTo: 2 }), null])
    await choose(wrapper, 'result', 'return')
    await shown(() => wrapper.find('#out-return').exists())
    await wrapper.find('#out-return').setValue('25 Nov 2026 09:00')
    await wrapper.find('#out-return').trigger('blur')
    await wrapper.find('form').trigger('submit')
    await settled()
    expect(wrapper.emitted('finish')![1]).toEqual([expect.objectContaining({ result: 'return', returnAt: '2026-11-25T09:00:00.000Z' }), null])
  })

  test('meters nobody has read are named, and a name without a signature is not taken for one', async () => {
    // Nothing is drawn here: any act of the paper does nothing.
    const paper = new Proxy({}, { get: () => () => undefined, set: () => true })
    HTMLCanvasElement.prototype.getContext = (() => paper) as never
    const wrapper = await form(undefined, { onSite: true, unread: ['Running hours'] })
    expect(wrapper.text()).toContain('Not read yet: Running hours.')
    await wrapper.findAll('button').find((one) => one.text() === 'Signature of who is here')!.trigger('click') // prettier-ignore
    await shown(() => wrapper.find('#out-signer').exists())
    expect(wrapper.find('button[type="submit"]').attributes('disabled')).toBeUndefined()
    await wrapper.find('#out-signer').setValue('Nuala Ingleby')
    expect(wrapper.find('button[type="submit"]').attributes('disabled')).toBeDefined()
    expect(wrapper.text()).toContain('Sign above, too, or leave the name out.')
  })
})

test('a bill is sent line by line, in minor units and basis points', async () => {
  const form = mount(BillForm, { props: { currency: 'EUR', busy: false, problem: null, readFile: () => Promise.reject(new Error('no file')) } })
  await form.find('#bill-number').setValue('SSP-9')
  await form.find('#bill-what-0').setValue('Call-out')
  await form.find('#bill-price-0').setValue('140.10')
  await form
    .findAll('button')
    .find((one) => one.text() === 'Another line')!
    .trigger('click')
  await form.find('#bill-what-1').setValue('Work')
  await form.find('#bill-quantity-1').setValue('1.5')
  await form.find('#bill-price-1').setValue('98')
  await form.find('#bill-tax').setValue('23')
  await form.find('form').trigger('submit')
  expect(form.emitted('send')).toEqual([
    [
      {
        number: 'SSP-9',
        taxBp: 2_300,
        lines: [
          { description: 'Call-out', quantity: '1', unitPriceMinor: 14_010 },
          { description: 'Work', quantity: '1.5', unitPriceMinor: 9_800 },
        ],
      },
    ],
  ])
})

test('a note that is refused stays as it was typed, with the sentence', async () => {
  const form = mount(NoteForm, { props: { busy: false, problem: refusal('Write it in a few words.', 'text'), modelValue: 'kept' } })
  expect(form.find('textarea').element.value).toBe('kept')
  expect(form.find('.problem').text()).toBe('Write it in a few words.')
  await form.find('form').trigger('submit')
  expect(form.emitted('add')).toHaveLength(1)
})

test('with a keyboard a form is sent from wherever one is in it, and not while it is being sent', async () => {
  const sent = jest.fn((event: Event) => event.preventDefault())
  const page = (busy: boolean) =>
    mount(PhonePage, {
      attachTo: document.body,
      slots: { default: () => h('form', { onSubmit: sent }, [h('textarea'), h('button', { type: 'submit', disabled: busy }, 'Add')]) },
    })
  await page(false).find('textarea').trigger('keydown', { key: 'Enter', ctrlKey: true })
  expect(sent).toHaveBeenCalledTimes(1)
  await page(false).find('textarea').trigger('keydown', { key: 'Enter' })
  await page(true).find('textarea').trigger('keydown', { key: 'Enter', ctrlKey: true })
  expect(sent).toHaveBeenCalledTimes(1)
})

describe('one job on a phone', () => {
  const opened = () => {
    const job = useLoading(() => Promise.resolve({ visitState: 'on_site', notes: 0 }))
    return {
      job,
      phone: usePhoneJob<{ visitState: string; notes: number }, 'note', 'parts'>(job, () => Promise.reject(refusal('This is not a picture.', 'file'))),
    }
  }

  test('an act shows what the server says then and closes its form', async () => {
    const { job, phone } = opened()
    await job.load()
    phone.open.value = 'note'
    phone.note.value = 'Bring a ladder'
    const doing = phone.addNote((text) => Promise.resolve({ visitState: 'ended', notes: text.length }))
    expect(phone.busy.value).toBe(true)
    await doing
    expect([phone.busy.value, phone.open.value, phone.note.value, phone.over.value, phone.it.value?.notes]).toEqual([false, null, '', true, 14])
  })

  test('a refusal leaves the form open with what was typed', async () => {
    const { job, phone } = opened()
    await job.load()
    phone.open.value = 'note'
    phone.note.value = 'x'
    await phone.addNote(() => Promise.reject(refusal('Too short.', 'text')))
    expect([phone.open.value, phone.note.value, phone.problem.value?.at('text'), phone.busy.value]).toEqual(['note', 'x', 'Too short.', false])
    await expect(phone.act(() => Promise.reject(new TypeError('bug')))).rejects.toThrow('bug')
  })

  test('what is refused is said where it was pressed, and what is refused next elsewhere not there', async () => {
    const { job, phone } = opened()
    await job.load()
    expect(await phone.actAt('parts', () => Promise.reject(refusal('Nothing of it is left.')))).toBe(false)
    expect([phone.problemAt('parts')?.reasons[0]?.sentence, phone.said.value]).toEqual(['Nothing of it is left.', null])
    await phone.keepOpen(() => Promise.reject(refusal('The clock runs elsewhere.')))
    expect([phone.problemAt('parts'), phone.said.value]).toEqual([null, 'The clock runs elsewhere.'])
    await phone.act(() => Promise.resolve({ visitState: 'on_site', notes: 1 }))
    expect(phone.said.value).toBeNull()
  })

  test('a photo that is refused says so and can be sent again', async () => {
    const { job, phone } = opened()
    await job.load()
    await phone.photo([new File(['x'], 'a.jpg')])
    expect([phone.problem.value?.message, phone.busy.value]).toEqual(['Not saved.', false])
  })
})
