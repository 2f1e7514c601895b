import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { Component } from 'vue'
import { CallProblem } from '#web/kit'
import { choose } from '../../tests/kit/choose'
import { answering } from '../../tests/kit/fetch'
import AnswerCard from './AnswerCard.vue'
import BillForm from './BillForm.vue'
import BroughtParts from './BroughtParts.vue'
import PassFindings from './PassFindings.vue'
import PriceCard from './PriceCard.vue'
import RenewLink from './RenewLink.vue'
import WhoIsThere from './WhoIsThere.vue'

beforeEach(() => setActivePinia(createPinia()))
const problem = (sentence: string, field?: string) =>
  new CallProblem({ type: 'about:blank', title: 'No', status: 422, detail: sentence, reasons: [{ code: 'x', sentence, ...(field ? { field } : {}) }] })
const press = (wrapper: ReturnType<typeof mount>, words: string) =>
  wrapper
    .findAll('button')
    .find((one) => one.text() === words)!
    .trigger('click')

describe('the bill', () => {
  const form = (readFile: (file: File) => Promise<unknown>, brought: { name: string; quantity: string }[] = []) =>
    mount(BillForm, { props: { currency: 'EUR', busy: false, problem: null, brought, readFile: readFile as never } })
  const choose = async (wrapper: ReturnType<typeof form>) => {
    wrapper.findComponent({ name: 'FileEntry' }).vm.$emit('choose', [new File(['x'], 'OHM-118.xml')])
    await flushPromises()
  }
  const read = { number: 'OHM-118', taxBp: 1_350, lines: [{ description: 'Call-out', quantity: '1', unitPriceMinor: 14_000 }] }

  test('begins with the parts they brought', () => {
    const wrapper = form(() => Promise.reject(new Error('no')), [{ name: 'Door gasket', quantity: '2.000' }])
    expect((wrapper.find('#bill-what-0').element as HTMLInputElement).value).toBe('Door gasket')
    expect((wrapper.find('#bill-quantity-0').element as HTMLInputElement).value).toBe('2')
  })

  test('is filled in by an electronic invoice, and sent with its file', async () => {
    const wrapper = form(() => Promise.resolve({ claim: 'c'.repeat(43), name: 'OHM-118.xml', read }))
    await choose(wrapper)
    expect(wrapper.text()).toContain('Look it through, then send it.')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('send')![0]).toEqual([{ ...read, fileClaim: 'c'.repeat(43) }])
  })

  test('a PDF goes along with what is written; what cannot be read says why, and nothing typed is lost', async () => {
    const wrapper = form(() => Promise.resolve({ claim: 'c'.repeat(43), name: 'Bill.pdf', read: null }))
    await wrapper.find('#bill-number').setValue('B-7')
    await choose(wrapper)
    expect(wrapper.text()).toContain('goes along.')
    expect((wrapper.find('#bill-number').element as HTMLInputElement).value).toBe('B-7')
    const unread = form(() => Promise.reject(problem('It is in GBP; bills here are in EUR.', 'file')))
    await unread.find('#bill-number').setValue('B-8')
    await choose(unread)
    expect(unread.find('[role="alert"]').text()).toContain('GBP')
    expect((unread.find('#bill-number').element as HTMLInputElement).value).toBe('B-8')
  })

  test('a line is taken out again', async () => {
    const wrapper = form(() => Promise.reject(new Error('no')))
    await press(wrapper, 'Another line')
    await wrapper.find('#bill-what-0').setValue('First')
    await wrapper.find('#bill-what-1').setValue('Second')
    await wrapper.find('[aria-label="Take out line 1"]').trigger('click')
    expect((wrapper.find('#bill-what-0').element as HTMLInputElement).value).toBe('Second')
  })
})

test('a price is named before work, in minor units; one that was agreed to is not named again', async () => {
  const card = mount(PriceCard, { props: { price: null, may: true, currency: 'EUR', busy: false, problem: null } })
  await press(card, 'Name a price')
  await card.find('form').trigger('submit')
  expect(card.emitted('name')).toBeUndefined()
  await card.find('#pass-net').setValue('450.50')
  await card.find('form').trigger('submit')
  expect(card.emitted('name')![0]).toEqual([{ netMinor: 45_050, taxBp: 1_350, note: '' }])
  const price = { netMinor: 45_050, taxBp: 1_350, note: null, state: 'taken' as const }
  const agreed = mount(PriceCard, { props: { price, may: true, currency: 'EUR', busy: false, problem: null } })
  expect(agreed.text()).toContain('The desk has agreed to it.')
  expect(agreed.findAll('button')).toHaveLength(0)
  const begun = mount(PriceCard, { props: { price: { ...price, state: 'priced' }, may: false, currency: 'EUR', busy: false, problem: null } })
  expect(begun.findAll('button')).toHaveLength(0)
})

test('parts they brought are written down and taken out; nothing without a name or with a quantity that is none', async () => {
  const card = mount(BroughtParts, { props: { brought: [{ id: 4, name: 'Gasket', quantity: '2.000', unit: 'pc' }], over: false, busy: false, problem: null } })
  expect(card.text()).toContain('2 pc Gasket')
  await card.find('[aria-label="Take out Gasket"]').trigger('click')
  expect(card.emitted('drop')).toEqual([[4]])
  await press(card, 'Add a part')
  await card.find('#brought-name').setValue('Hose')
  await card.find('#brought-quantity').setValue('many')
  await card.find('form').trigger('submit')
  expect(card.emitted('bring')).toBeUndefined()
  await card.find('#brought-quantity').setValue('1.5')
  await card.find('form').trigger('submit')
  expect(card.emitted('bring')![0]).toEqual([{ name: 'Hose', quantity: '1.5', unit: 'pc' }])
  const over = mount(BroughtParts, { props: { brought: [], over: true, busy: false, problem: null } })
  expect(over.find('section').exists()).toBe(false)
})

test('what is wrong besides is told with how bad it is; what the job is to put right stands first', async () => {
  const finding = {
    id: 1,
    mark: 'm',
    text: 'Hinge cracked',
    severity: 'repair',
    fixedNow: false,
    where: 'GAN-102 Studio 2',
    pin: null,
    photos: [],
    at: '2026-11-23T09:15:00Z',
    who: 'Ohm',
    state: 'open',
    mayTakeBack: true,
  } as const
  const card = mount(PassFindings, {
    props: {
      findings: [{ ...finding, photos: [] }],
      answers: [{ ...finding, photos: [{ id: 9 }], text: 'Grating loose' }],
      over: false,
      busy: false,
      problem: null,
      urlOf: (id: number) => `/f/${id}`,
    },
  })
  expect(card.findAll('h2').map((one) => one.text())).toEqual(['To put right', 'Something else wrong there?'])
  expect(card.find('img').attributes('src')).toBe('/f/9')
  await card.find('[aria-label="Take it back: Hinge cracked"]').trigger('click')
  expect(card.emitted('takeBack')).toEqual([['m']])
  await press(card, 'Record a finding')
  await card.find('#pass-finding').setValue('Cover is off')
  await choose(card, 'How bad', 'unsafe')
  await card.find('form').trigger('submit')
  expect(card.emitted('find')![0]).toEqual([{ text: 'Cover is off', severity: 'unsafe', fixedNow: false, photos: [] }])
})

test('a link that has ended asks for another, and says where it went, or why not', async () => {
  const sent = answering({ 'POST /api/pass/abc/renew': { body: { sentTo: 'o…@ohm.example' } } })
  const card = mount(RenewLink, { props: { token: 'abc' } })
  await card.find('button').trigger('click')
  await flushPromises()
  expect(card.text()).toContain('A new link is on its way to o…@ohm.example.')
  expect(sent).toHaveLength(1)
  answering({ 'POST /api/pass/abc/renew': { status: 404, body: { type: 'about:blank', title: 'Gone', status: 404, detail: 'It was taken back.' } } })
  const gone = mount(RenewLink, { props: { token: 'abc' } })
  await gone.find('button').trigger('click')
  await flushPromises()
  expect(gone.find('[role="alert"]').text()).toContain('It was taken back.')
})

const asked = { busy: false, problem: null }
const coming = { answer: null, plannedStart: '2026-11-24T09:00:00Z', plannedEnd: '2026-11-24T10:00:00Z', proposed: null }
test.each<[Component, object, string, string]>([
  [PriceCard, { ...asked, price: null, may: true, currency: 'EUR' }, 'Name a price', 'pass-net'],
  [BroughtParts, { ...asked, brought: [{ id: 4, name: 'Gasket', quantity: '2.000', unit: 'pc' }], over: false }, 'Add a part', 'brought-name'],
  [AnswerCard, { ...asked, job: coming }, 'Another time', 'propose-start'],
  [AnswerCard, { ...asked, job: coming }, 'We do not come', 'decline-why'],
])('a form that opens has the keyboard, and by Escape what opened it has it again: %#', async (card, props, words, field) => {
  const wrapper = mount(card, { props, attachTo: document.body })
  await press(wrapper, words)
  await flushPromises()
  expect(document.activeElement!.id).toBe(field)
  await wrapper.find('form').trigger('keydown', { key: 'Escape' })
  await new Promise((resolve) => requestAnimationFrame(resolve))
  expect(document.activeElement!.textContent).toBe(words)
  // Who has gone on meanwhile is left where they are.
  await press(wrapper, words)
  await flushPromises()
  await wrapper.find('form').trigger('keydown', { key: 'Escape' })
  const elsewhere = document.body.appendChild(document.createElement('button'))
  elsewhere.focus()
  await new Promise((resolve) => requestAnimationFrame(resolve))
  expect(document.activeElement).toBe(elsewhere)
  elsewhere.remove()
  wrapper.unmount()
})

test('what speaks against an answer is said while its form is open: at its field, or above where it is of none', async () => {
  for (const [words, field] of [
    ['Another time', 'propose-start'],
    ['We do not come', 'decline-why'],
  ] as const) {
    const card = mount(AnswerCard, { props: { ...asked, job: coming as never } })
    await press(card, words)
    await card.setProps({ problem: problem('You have begun already.') })
    expect(card.findAll('[role="alert"]').map((one) => one.text())).toEqual(['You have begun already.'])
    await card.setProps({ problem: problem('It is over by then.', field === 'decline-why' ? 'note' : 'start') })
    expect(card.find(`#${field}-says`).text()).toBe('It is over by then.')
    expect(card.find('section > .problem').exists()).toBe(false)
  }
})

describe('who is there', () => {
  test('a name and a number go to the desk; refused, they stay where they were typed; taken, the keyboard is on the button again', async () => {
    const wrapper = mount(WhoIsThere, { props: { there: null, busy: false, problem: null }, attachTo: document.body })
    expect(wrapper.text()).toContain('If you are not heard of, the desk calls your firm.')
    await press(wrapper, 'Say who is there')
    expect(wrapper.find('button[type="submit"]').attributes('disabled')).toBeDefined()
    await wrapper.find('#there-name').setValue(' Orla Furlong ')
    await wrapper.find('#there-phone').setValue('+353 87 555 0199')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('say')).toEqual([[{ name: 'Orla Furlong', phone: '+353 87 555 0199' }]])
    await wrapper.setProps({ problem: problem('The work on it is over.') })
    expect(wrapper.find('[role="alert"]').text()).toBe('The work on it is over.')
    expect((wrapper.find('#there-name').element as HTMLInputElement).value).toBe(' Orla Furlong ')
    await wrapper.setProps({ problem: null, there: { name: 'Orla Furlong', phone: '+353 87 555 0199' } })
    wrapper.vm.close()
    await new Promise((resolve) => requestAnimationFrame(resolve))
    await flushPromises()
    expect(wrapper.text()).toContain('The desk calls Orla Furlong on +353 87 555 0199.')
    expect(document.activeElement!.textContent).toContain('Somebody else is there')
    wrapper.unmount()
  })

  test('put back by Escape, what was said before stands', async () => {
    const wrapper = mount(WhoIsThere, { props: { there: { name: 'Orla Furlong', phone: null }, busy: false, problem: null } })
    await press(wrapper, 'Somebody else is there')
    await wrapper.find('#there-name').setValue('Declan')
    await wrapper.find('form').trigger('keydown', { key: 'Escape' })
    expect(wrapper.text()).toContain('The desk calls Orla Furlong on the number of your firm.')
    await press(wrapper, 'Somebody else is there')
    expect((wrapper.find('#there-name').element as HTMLInputElement).value).toBe('Orla Furlong')
  })
})
