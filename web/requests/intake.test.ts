import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { nextTick } from 'vue'
import type { CounterCategory, Conversation, KeptFile } from '#contract/requests'
import { CallProblem } from '#web/kit'
import { answering, settled } from '../../tests/kit/fetch'
import AroundList from './AroundList.vue'
import CategoryField from './CategoryField.vue'
import ConversationBox from './ConversationBox.vue'
import FilesField from './FilesField.vue'
import QuestionFields from './QuestionFields.vue'
import { useReportDraft } from './reportDraft'
import SpotField from './SpotField.vue'

beforeEach(() => {
  setActivePinia(createPinia())
  localStorage.clear()
})
afterEach(() => (document.body.innerHTML = ''))
const later = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

describe('what it is about', () => {
  const category = (id: number, parentId: number | null, name: string, hint: string | null = null): CounterCategory => ({
    id,
    parentId,
    name,
    hint,
    formId: null,
    questions: [],
  })
  const categories = [category(1, null, 'Cold', 'Anything that must stay cold'), category(2, 1, 'Freezer', 'To −80 °C'), category(3, null, 'Lifts')]
  const field = () => mount(CategoryField, { props: { categories, needed: false, modelValue: null } })
  const names = (of: ReturnType<typeof field>) => of.findAll('.found strong').map((one) => one.text())

  test('is a short tree: one step down, back, or none of these', async () => {
    const box = field()
    expect(names(box)).toEqual(['Cold', 'Lifts'])
    await box.findAll('.found button')[0]!.trigger('click')
    expect(names(box)).toEqual(['Freezer'])
    expect(box.emitted('update:modelValue')).toBeUndefined()
    await box.findAll('.back')[0]!.trigger('click')
    expect(names(box)).toEqual(['Cold', 'Lifts'])
    await box.findAll('.found button')[0]!.trigger('click')
    await box
      .findAll('.back')
      .find((one) => one.text() === 'None of these')!
      .trigger('click')
    expect(box.emitted('update:modelValue')).toEqual([[1]])
  })

  test('is found by a word of its name, its hint or what is above it', async () => {
    const box = field()
    for (const words of ['freez', '80', 'stay cold freezer'.split(' ')[2]!]) {
      await box.find('input').setValue(words)
      expect(names(box)).toEqual(['Freezer'])
    }
    await box.find('input').setValue('zzz')
    expect(box.text()).toContain('say it in your own words')
    await box.find('input').setValue('lift')
    await box.find('.found button').trigger('click')
    expect(box.emitted('update:modelValue')).toEqual([[3]])
  })
})

test('questions show once an earlier answer makes them relevant, with unit, limits and what is wrong', async () => {
  const fields = mount(QuestionFields, {
    props: {
      questions: [
        { code: 'on', label: 'Is it on?', kind: 'yes_no', required: true },
        { code: 'shows', label: 'What does it show?', kind: 'number', unit: '°C', least: -90, most: 30, required: false, when: { code: 'on', is: 'yes' } },
      ],
      wrong: { 'answers.on': 'This is needed.' },
      modelValue: {},
    },
  })
  expect(fields.text()).toContain('This is needed.')
  expect(fields.text()).not.toContain('What does it show?')
  await fields.findAll('input[type=radio]')[0]!.setValue()
  expect(fields.emitted('update:modelValue')).toEqual([[{ on: 'yes' }]])
  await fields.setProps({ modelValue: { on: 'yes' } })
  expect(fields.text()).toContain('What does it show? (°C, -90 to 30)')
  await fields.find('#q-shows').setValue('-61')
  expect(fields.emitted('update:modelValue')![1]).toEqual([{ on: 'yes', shows: '-61' }])
})

describe('where it is', () => {
  const spot = (code: string, assetId: number | null = null) => ({ placeId: 7, assetId, code, name: `Named ${code}`, within: 'First floor' })

  test('is found while typing; assets only where the site asks for them', async () => {
    const sent = answering({ 'GET /api/counter/SKE/spots': { body: { rows: [spot('A-1'), spot('F-3', 9)] } } })
    const field = mount(SpotField, { props: { site: 'SKE', recent: [spot('R-1')], needed: true, withAssets: false, modelValue: null } })
    expect(field.text()).toContain('Used before on this device')
    await field.find('input').setValue('a')
    await later(200)
    await settled()
    expect(sent[0]!.url).toContain('near=7')
    expect(field.findAll('#found button').map((one) => one.text())).toEqual([expect.stringContaining('A-1')])
    await field.find('#found button').trigger('click')
    expect(field.emitted('update:modelValue')![0]).toEqual([spot('A-1')])
    expect(field.emitted('chosen')).toHaveLength(1)
  })
})

describe('files', () => {
  const kept = (claim: string, kind: 'picture' | 'document' = 'document'): KeptFile => ({
    claim,
    kind,
    name: `${claim}.txt`,
    width: null,
    height: null,
    bytes: 2_048,
  })
  const choose = async (field: ReturnType<typeof mount>, files: File[]) => {
    const input = field.find('input[type=file]')
    Object.defineProperty(input.element, 'files', { value: files, configurable: true })
    await input.trigger('change')
    await settled()
  }

  test('too large a one is refused before it is sent; what the server refuses says why; the others stay', async () => {
    const upload = jest.fn((_file: Blob, name: string) =>
      name === 'bad.jpg'
        ? Promise.reject(
            new CallProblem({ type: 'about:blank', title: 'No', status: 422, detail: 'No', reasons: [{ code: 'x', sentence: 'This is not a picture.' }] }),
          )
        : Promise.resolve(kept(name)),
    )
    const field = mount(FilesField, { props: { upload, label: 'Files', modelValue: [] } })
    const large = new File(['x'], 'large.mov')
    Object.defineProperty(large, 'size', { value: 16 * 1024 * 1024 })
    await choose(field, [large, new File(['x'], 'bad.jpg'), new File(['x'], 'good')])
    await settled()
    expect(upload).toHaveBeenCalledTimes(2)
    expect(field.findAll('.problem').map((one) => one.text())).toEqual([
      'large.mov is larger than 15 MB. Send a smaller one.',
      'bad.jpg: This is not a picture.',
    ])
    expect(field.emitted('update:modelValue')!.at(-1)).toEqual([[kept('good')]])
  })

  test('ten are the most', async () => {
    const field = mount(FilesField, {
      props: { upload: () => Promise.resolve(kept('x')), label: 'Files', modelValue: Array.from({ length: 9 }, (_, n) => kept(`f${n}`)) },
    })
    await choose(field, [new File(['x'], 'tenth.txt'), new File(['x'], 'eleventh.txt')])
    await settled()
    expect(field.find('input[type=file]').attributes('disabled')).toBeDefined()
    expect(field.text()).toContain('eleventh.txt: ten files are the most')
    await field.findAll('[aria-label^="Remove"]')[0]!.trigger('click')
    expect((field.emitted('update:modelValue')!.at(-1) as [KeptFile[]])[0]).toHaveLength(9)
  })

  test('what is dragged over the field and dropped is sent like what is chosen', async () => {
    const upload = jest.fn((_file: Blob, name: string) => Promise.resolve(kept(name)))
    const field = mount(FilesField, { props: { upload, label: 'Files', modelValue: [] } })
    await field.find('.drop').trigger('dragover')
    expect(field.find('.drop').classes()).toContain('dragging')
    await field.find('.drop').trigger('drop', { dataTransfer: { files: [new File(['x'], 'plan.pdf')] } })
    await settled()
    expect(field.find('.drop').classes()).not.toContain('dragging')
    expect(upload).toHaveBeenCalledWith(expect.any(File), 'plan.pdf')
    expect(field.emitted('update:modelValue')!.at(-1)).toEqual([[kept('plan.pdf')]])
  })
})

describe('a report being sent', () => {
  const spot = { placeId: 7, assetId: null, code: 'A-1', name: 'Lab', within: '' }
  const draftOf = (site: string) => {
    const report = useReportDraft(site)
    Object.assign(report.draft, { spot, summary: 'Tap drips', description: 'The left one.' })
    return report
  }

  test('is kept while typing and gone once it has arrived', async () => {
    const sent = answering({ 'POST /api/counter/SKE/requests': { body: { number: 'R-1', link: '/t/x' } } })
    const report = draftOf('SKE')
    await nextTick()
    expect(localStorage.getItem('evrix-report-SKE')).toContain('Tap drips')
    await report.send()
    expect(report.sent.value).toEqual({ number: 'R-1', link: '/t/x' })
    expect(sent[0]!.body).not.toHaveProperty('ready')
    expect(report.recent.value.map((one) => one.code)).toEqual(['A-1'])
    expect(localStorage.getItem('evrix-report-SKE')).toBeNull()
  })

  test('waits while nobody answers, and goes out under the same key when the page is opened again', async () => {
    answering({ 'POST /api/counter/SKE/requests': { status: 503, body: { type: 'about:blank', title: 'Down', status: 503, detail: 'Down' } } })
    const report = draftOf('SKE')
    await report.send()
    expect(report.waiting.value).toBe(true)
    report.giveUpWaiting()
    expect(report.waiting.value).toBe(false)
    await report.send()
    await nextTick()
    const sent = answering({ 'POST /api/counter/SKE/requests': { body: { number: 'R-2', link: '/t/y' } } })
    const again = useReportDraft('SKE')
    await settled()
    await settled()
    expect(again.sent.value?.number).toBe('R-2')
    expect(sent[0]!.key).toBe(report.draft.key)
    report.giveUpWaiting()
  })

  test('a refusal is shown and nothing is lost', async () => {
    answering({
      'POST /api/counter/SKE/requests': {
        status: 422,
        body: {
          type: 'about:blank',
          title: 'No',
          status: 422,
          detail: 'Add a photo.',
          reasons: [{ code: 'photo_missing', sentence: 'Add a photo.', field: 'fileClaims' }],
        },
      },
    })
    const report = draftOf('SKE')
    await report.send()
    expect(report.problem.value?.at('fileClaims')).toBe('Add a photo.')
    expect(report.draft.summary).toBe('Tap drips')
    expect(report.waiting.value).toBe(false)
  })
})

describe('note or message', () => {
  const conversation: Conversation = { rows: [], reaches: ['ulla@reporter.example'] }
  const box = () => mount(ConversationBox, { props: { requestId: 5, conversation, mayWrite: true } })

  test('place, colour and words differ, and who is reached stands at the field', async () => {
    const talk = box()
    expect(talk.find('form').classes()).toContain('note')
    expect(talk.text()).toContain('Only the desk reads this')
    await talk.findAll('.kinds button')[1]!.trigger('click')
    expect(talk.find('form').classes()).toContain('message')
    expect(talk.text()).toContain('Mailed to ulla@reporter.example')
  })

  test('switching with words typed asks once, and nothing is sent meanwhile', async () => {
    const sent = answering({ 'POST /api/requests/5/comments': { body: conversation } })
    const talk = box()
    await talk.find('textarea').setValue('The key is under the mat')
    await talk.findAll('.kinds button')[1]!.trigger('click')
    expect(talk.find('.ask').text()).toContain('will be mailed to ulla@reporter.example')
    await talk.find('form').trigger('submit')
    expect(sent).toHaveLength(0)
    await talk.findAll('.ask button')[1]!.trigger('click')
    await talk.find('form').trigger('submit')
    await settled()
    expect(sent[0]!.body).toEqual({ kind: 'note', text: 'The key is under the mat' })
    expect(talk.emitted('written')).toEqual([[conversation]])
  })
})

test('“me too” asks for a mail address, says what is wrong with it, and then that it is done', async () => {
  const known = {
    id: 3,
    summary: 'Lift is out',
    place: 'Lobby',
    since: '2026-11-23T08:00:00Z',
    progress: { step: 'looking', sentence: 'We are looking at it.' },
  }
  let refuse = true
  const sent = answering({
    'GET /api/counter/SKE/around': { body: { requests: [known], bulletins: [], articles: [] } },
    'POST /api/counter/SKE/requests/3/follow': () =>
      refuse
        ? {
            status: 400,
            body: { type: 'about:blank', title: 'No', status: 400, detail: 'No', reasons: [{ code: 'x', sentence: 'Write a mail address.', field: 'email' }] },
          }
        : { body: { following: true } },
  })
  const list = mount(AroundList, { props: { site: 'SKE', placeId: 1, assetId: null, words: '', categoryId: null, email: '', name: '' } })
  await later(300)
  await settled()
  expect(list.text()).toContain('Lift is out')
  await list.find('button').trigger('click')
  await list.find('form').trigger('submit')
  await settled()
  expect(list.find('.problem').text()).toBe('Write a mail address.')
  refuse = false
  await list.find('input').setValue('me@reporter.example')
  await list.find('form').trigger('submit')
  await settled()
  expect(list.text()).toContain('confirm the address; then you hear how it goes.')
  expect(sent.at(-1)!.body).toMatchObject({ email: 'me@reporter.example' })
})
