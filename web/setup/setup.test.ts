import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { CategoryRow, IntakeSetup } from '#contract/setup'
import { OCCASIONS, USUAL_COUNTER_FIELDS, USUAL_WORDINGS } from '#core/requests'
import { CallProblem } from '#web/kit'
import { choose } from '../../tests/kit/choose'
import { answering, settled } from '../../tests/kit/fetch'
import ApiKeys from './ApiKeys.vue'
import CategoryForm from './CategoryForm.vue'
import CounterFieldsTable from './CounterFieldsTable.vue'
import TableView from './TableView.vue'
import WordingEditor from './WordingEditor.vue'

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => (document.body.innerHTML = ''))

const category: CategoryRow = {
  id: 4,
  parentId: null,
  code: 'lift',
  name: 'Lifts',
  hint: null,
  tradeId: null,
  position: 10,
  retired: false,
  round: 1,
  questions: [],
}
const setup: IntakeSetup = {
  everywhere: true,
  sites: [
    {
      id: 1,
      code: 'SKE',
      name: 'Skerry Sound',
      deskEmail: 'desk-ske@skerry.example',
      fields: { ...USUAL_COUNTER_FIELDS, phone: 'required' },
    },
    { id: 2, code: 'MUS', name: 'Mussel Yard', deskEmail: 'desk-mus@skerry.example', fields: USUAL_COUNTER_FIELDS },
  ],
  categories: [category],
  wordings: [1, 2].flatMap((siteId) => OCCASIONS.map((occasion) => ({ siteId, occasion, own: false, ...USUAL_WORDINGS[occasion] }))),
  apiKeys: [],
}
/** Runs the change as the screen does. */
const keep = jest.fn(async (change: () => Promise<IntakeSetup>) => {
  await change()
  return true
})
const vocabulary = {
  'GET /api/vocabulary': { body: { trades: [], categories: [], payers: [], teams: [], accounts: [], sites: [{ id: 1, code: 'SKE', name: 'Skerry Sound' }] } },
}

test('copying a site’s fields shows what would change before it does, and names the sites', async () => {
  const sent = answering({ 'POST /api/setup/intake/copy': { body: setup } })
  const table = mount(CounterFieldsTable, { props: { setup, keep } })
  await table
    .findAll('button')
    .find((one) => one.text().startsWith('Copy SKE'))!
    .trigger('click')
  expect(table.text()).toContain('Mussel Yard: Phone from optional to required')
  expect(sent).toHaveLength(0)
  await table.find('form').trigger('submit')
  await settled()
  expect(sent[0]!.body).toEqual({ fromId: 1, toIds: [2] })
})

test('a field set otherwise is saved with the others as they stand', async () => {
  const sent = answering({ 'PATCH /api/setup/sites/2/intake': { body: setup } })
  const table = mount(CounterFieldsTable, { props: { setup, keep } })
  await choose(table, 'Phone at MUS', 'not_asked')
  await settled()
  expect(sent[0]!.body).toEqual({ fields: { ...USUAL_COUNTER_FIELDS, phone: 'not_asked' } })
})

describe('a category', () => {
  const form = (problem: CallProblem | null = null) =>
    mount(CategoryForm, { props: { category, categories: [category], problem, keep }, attachTo: document.body })

  test('gets questions, shows them as a reporter sees them, and sends only what belongs to their kind', async () => {
    const sent = answering({ ...vocabulary, 'POST /api/setup/categories': { body: setup } })
    const box = form()
    const add = box.findAll('button').find((one) => one.text() === 'Add a question')!
    await add.trigger('click')
    await add.trigger('click')
    await box.find('#q-label-0').setValue('Is anybody in it?')
    await choose(box, 'q-kind-0', 'yes_no')
    await box.find('#q-label-1').setValue('How many?')
    await choose(box, 'q-kind-1', 'number')
    await box.find('#q-unit-1').setValue('people')
    await box.find('#q-least-1').setValue('1')
    await box.find('#q-least-1').trigger('blur')
    await choose(box, 'q-when-1', 'q1')
    const seen = box.find('.seen')
    expect(seen.text()).toContain('Is anybody in it?')
    expect(seen.text()).not.toContain('How many?')
    await seen.findAll('input[type=radio]')[0]!.setValue()
    expect(seen.text()).toContain('How many? (people, at least 1)')
    await box.find('form').trigger('submit')
    await settled()
    expect(sent.at(-1)!.body.questions).toEqual([
      { code: 'q1', label: 'Is anybody in it?', kind: 'yes_no', required: false },
      { code: 'q2', label: 'How many?', kind: 'number', required: false, unit: 'people', least: 1, most: null, when: { code: 'q1', is: 'yes' } },
    ])
    expect(box.emitted('leave')).toHaveLength(1)
  })

  test('the sentence of a refusal stands at its question, once this form was sent', async () => {
    answering({ ...vocabulary, 'POST /api/setup/categories': { body: setup } })
    const refusal = new CallProblem({
      type: 'about:blank',
      title: 'No',
      status: 422,
      detail: 'No',
      reasons: [{ code: 'label', sentence: 'Write the question.', field: 'questions.0' }],
    })
    const box = form(refusal)
    await box
      .findAll('button')
      .find((one) => one.text() === 'Add a question')!
      .trigger('click')
    expect(box.text()).not.toContain('Write the question.')
    await box.find('form').trigger('submit')
    expect(box.text()).toContain('Write the question.')
  })
})

test('words of a mail with an unknown placeholder, or without the link, cannot be saved; the preview is the server’s', async () => {
  const sent = answering({ 'POST /api/setup/wordings/preview': { body: { subject: 'R-1 Tap', text: 'Hello Ulla', html: '<p>Hello</p>', of: 'R-1' } } })
  const editor = mount(WordingEditor, { props: { setup, keep, problem: null } })
  await editor.find('textarea').setValue('Hello {nmae}')
  expect(editor.findAll('.problem')[0]!.text()).toContain('{nmae} is not known')
  expect(editor.find('button.n-button--primary-type').attributes('disabled')).toBeDefined()
  await editor.find('textarea').setValue('Hello {name}: {link}')
  await editor
    .findAll('button')
    .find((one) => one.text() === 'Show it filled in')!
    .trigger('click')
  await settled()
  expect(editor.find('.preview').text()).toContain('Hello Ulla')
  expect(sent.find((one) => one.body && 'occasion' in (one.body as object))!.body).toMatchObject({
    siteId: 1,
    occasion: 'received',
    text: 'Hello {name}: {link}',
  })
})

test('a key is shown the once it is made', async () => {
  answering({ 'POST /api/setup/api-keys': { body: { key: 'the-key-itself', setup } } })
  const keys = mount(ApiKeys, { props: { setup, keep } })
  await keys.find('#key-name').setValue('Quayside app')
  await keys.find('form').trigger('submit')
  await settled()
  expect(keys.text()).toContain('the-key-itself')
  expect(mount(ApiKeys, { props: { setup, keep } }).text()).not.toContain('the-key-itself')
})

test('a table is looked at first, matched otherwise, and taken only when that is pressed', async () => {
  const report = {
    columns: [
      { heading: 'Wer', sample: 'Ada', field: null },
      { heading: 'E-mail', sample: 'a@b.example', field: 'email' },
    ],
    fields: [
      { code: 'name', name: 'Name', required: true },
      { code: 'email', name: 'Mail address', required: true },
    ],
    unread: ['No column is Name. Choose which one it is.'],
    rows: 2,
    fresh: 0,
    changed: 0,
    same: 0,
    bad: [],
    badCount: 0,
    taken: false,
  }
  const bad = [{ line: 3, sentences: ['Mail address is missing.'], cells: ['Nobody'] }]
  const sent = answering({
    ...vocabulary,
    'POST /api/setup/tables/people': ({ url }) => ({
      body: url.includes('name%2Cemail')
        ? {
            ...report,
            unread: [],
            fresh: 1,
            bad,
            badCount: 1,
            taken: url.includes('take=true'),
            columns: report.columns.map((one, index) => ({ ...one, field: ['name', 'email'][index] })),
          }
        : report,
    }),
  })
  const view = mount(TableView, { global: { stubs: { RouterLink: true }, mocks: { $route: { path: '/setup/tables' } } } })
  await settled()
  const input = view.find('input[type=file]')
  Object.defineProperty(input.element, 'files', { value: [new File(['x'], 'people.csv')] })
  await input.trigger('change')
  await settled()
  await settled()
  expect(view.text()).toContain('No column is Name.')
  await choose(view, 'What “Wer” is', 'name')
  await settled()
  await settled()
  expect(view.text()).toContain('Mail address is missing.')
  expect(sent.some((one) => one.url.includes('take=true'))).toBe(false)
  await view.find('button.n-button--primary-type').trigger('click')
  await settled()
  await settled()
  expect(sent.filter((one) => !one.url.includes('/own/')).at(-1)!.url).toContain('take=true')
  expect(view.text()).toContain('Done')
})
