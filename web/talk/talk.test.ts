import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { Said, Talk } from '#contract/field'
import { CallProblem, setServerNow } from '#web/kit'
import { choose } from '../../tests/kit/choose'
import TalkCard from './TalkCard.vue'
import TalkRows from './TalkRows.vue'
import WriteForm from './WriteForm.vue'

beforeEach(() => {
  setActivePinia(createPinia())
  setServerNow('2026-11-23T10:30:00Z')
  sessionStorage.clear()
})
const said = (more: Partial<Said>): Said => ({
  ...{
    id: 1,
    mark: 'a',
    speaker: 'desk',
    audience: 'ours',
    who: 'Maren Quill',
    text: 'The key hangs in the porch',
    at: '2026-11-23T09:15:00Z',
    photos: [],
    mine: false,
  },
  ...more,
})
const TO: Talk['to'] = [
  { audience: 'ours', visitId: null, label: 'Our people on it' },
  { audience: 'vendor', visitId: 7, label: 'Ohm and Sons, vendor' },
  { audience: 'reporter', visitId: null, label: 'Aoife Ashdown, who reported it' },
]
const form = (to = TO) => mount(WriteForm, { props: { to, about: 'order-1', busy: false, problem: null } })

test('who said it, and to whom, stands at each; one’s own stands apart', () => {
  const rows = [
    said({}),
    said({ id: 2, mark: 'b', speaker: 'vendor', audience: 'vendor', who: 'Ohm and Sons', text: 'On the van' }),
    said({ id: 3, mark: 'c', mine: true, audience: 'reporter', text: 'Is it this one?' }),
  ]
  const list = mount(TalkRows, { props: { rows, urlOf: (id: number) => `/f/${id}`, named: true } })
  expect(
    list.findAll('li').map((one) =>
      one
        .findAll('.by > *')
        .map((part) => part.text())
        .join(' '),
    ),
  ).toEqual(['Maren Quill the desk, 09:15 ours alone', 'Ohm and Sons vendor, 09:15 from the vendor', 'You 09:15 to the reporter'])
  expect(list.findAll('li.mine')).toHaveLength(1)
  // On the phone, only what goes out of the house says so.
  const phone = mount(TalkRows, { props: { rows, urlOf: String } })
  expect(phone.findAll('.to').map((one) => one.text())).toEqual(['to the reporter'])
})

test('it is written to whom one chooses, the first unless one does; nothing empty is sent', async () => {
  const wrapper = form()
  await wrapper.find('form').trigger('submit')
  expect(wrapper.emitted('say')).toBeUndefined()
  await wrapper.find('textarea').setValue('  Bring the ladder ')
  await wrapper.find('form').trigger('submit')
  expect(wrapper.emitted('say')![0]).toEqual([{ audience: 'ours', visitId: null, text: 'Bring the ladder', photos: [] }])
  await choose(wrapper, 'Who reads it', 'vendor-7')
  expect(wrapper.text()).toContain('To Ohm and Sons, vendor')
  await wrapper.find('form').trigger('keydown', { key: 'Enter', ctrlKey: true })
  expect(wrapper.emitted('say')!.at(-1)).toEqual([expect.objectContaining({ audience: 'vendor', visitId: 7 })])
  await choose(wrapper, 'Who reads it', 'reporter-')
  expect(wrapper.text()).toContain('They are mailed what you write')
})

test('what is typed is kept until it was sent; a refusal stands at the field', async () => {
  const wrapper = form()
  await wrapper.find('textarea').setValue('Half a sentence')
  const again = form()
  expect((again.find('textarea').element as HTMLTextAreaElement).value).toBe('Half a sentence')
  const reasons = [{ code: 'no_address', sentence: 'Whoever reported it left no mail address.', field: 'audience' }]
  await again.setProps({ problem: new CallProblem({ type: 'about:blank', title: 'No', status: 422, detail: 'No', reasons }) })
  expect(again.text()).toContain('left no mail address')
  ;(again.vm as unknown as { clear: () => void }).clear()
  await again.vm.$nextTick()
  expect((form().find('textarea').element as HTMLTextAreaElement).value).toBe('')
})

test('where nobody can be written to, nothing is offered', () => {
  const card = mount(TalkCard, { props: { talk: { rows: [], to: [] }, about: 'job-1', busy: false, problem: null, urlOf: String } })
  expect(card.text()).toContain('Nobody has written yet.')
  expect(card.find('button').exists()).toBe(false)
})
