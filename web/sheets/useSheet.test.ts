import { createPinia, setActivePinia } from 'pinia'
import { effectScope } from 'vue'
import { editOrder, readOrder } from '#contract/orders'
import { answering, settled } from '../../tests/kit/fetch'
import { useSheet } from './useSheet'

interface Fields {
  id: number
  version: number
  summary: string
  access: string | null
}

/** A server with one order, which somebody else may change under our hands. */
function served(first: Partial<Fields> = {}) {
  const row: Fields = { id: 7, version: 1, summary: 'Tap drips', access: null, ...first }
  const sent = answering({
    'GET /api/orders/7': () => ({ body: row }),
    'PATCH /api/orders/7': ({ body }) => {
      const { version, id: _id, ...fields } = body as unknown as Fields
      if (fields.summary === '') return { status: 422, body: problem(422, [{ code: 'empty', sentence: 'This is needed.', field: 'summary' }]) }
      if (version !== row.version) {
        const conflict = Object.entries(fields).map(([field, yours]) => ({ field, theirs: row[field as keyof Fields], yours }))
        return { status: 409, body: { ...problem(409), conflict, version: row.version } }
      }
      Object.assign(row, fields, { version: row.version + 1 })
      return { body: row }
    },
  })
  return { row, sent, theyChange: (fields: Partial<Fields>) => Object.assign(row, fields, { version: row.version + 1 }) }
}
const problem = (status: number, reasons: unknown[] = []) => ({ type: 'about:blank', title: 'No', status, detail: 'Not saved.', reasons })
const open = async () => {
  const sheet = effectScope().run(() => useSheet(7, readOrder as never, editOrder as never))!
  await sheet.sheet.load()
  return sheet as ReturnType<typeof useSheet<Fields, Fields>>
}

beforeEach(() => setActivePinia(createPinia()))

test('fields are saved one after another, each with the version the one before it left', async () => {
  const { row, sent } = served()
  const { save, saving } = await open()
  const both = [save({ summary: 'Tap drips fast' }), save({ access: 'Key 4' })]
  expect(await Promise.all(both)).toEqual([true, true])
  expect(row).toMatchObject({ summary: 'Tap drips fast', access: 'Key 4', version: 3 })
  expect(sent.filter((one) => one.method === 'PATCH').map((one) => one.body.version)).toEqual([1, 2])
  expect(saving.value).toBe(0)
})

test('a refused field keeps its sentence until something is saved', async () => {
  served()
  const { save, sentenceAt, said } = await open()
  expect(await save({ summary: '' })).toBe(false)
  expect(sentenceAt('summary')).toBe('This is needed.')
  expect(said.said).toMatchObject({ sentence: 'This is needed.', wrong: true })
  expect(await save({ summary: 'Tap' })).toBe(true)
  expect(sentenceAt('summary')).toBeUndefined()
})

test('somebody else changed another field: ours goes in without a question', async () => {
  const { row, theyChange } = served()
  const { save, conflict } = await open()
  theyChange({ access: 'Key 9' })
  await save({ summary: 'Tap drips fast' })
  expect(conflict.value).toBeNull()
  expect(row).toMatchObject({ summary: 'Tap drips fast', access: 'Key 9' })
})

test.each([
  ['ours', ['summary'], 'Mine'],
  ['theirs', [], 'Theirs'],
])('the same field changed by both is asked about; %s stays', async (_whose, keep, stays) => {
  const { row, theyChange } = served()
  const { save, conflict, settle } = await open()
  theyChange({ summary: 'Theirs' })
  expect(await save({ summary: 'Mine', access: 'Key 4' })).toBe(false)
  expect(conflict.value?.fields).toEqual([{ field: 'summary', theirs: 'Theirs', yours: 'Mine' }])
  expect(row.access).toBeNull()
  await settle(keep)
  expect(conflict.value).toBeNull()
  // What did not clash is saved either way: nothing typed is lost.
  expect(row).toMatchObject({ summary: stays, access: 'Key 4' })
})

test('typed over what stood there before somebody else changed it: asked, before anything is sent', async () => {
  const { sent, theyChange } = served()
  const { sheet, saveFrom, conflict } = await open()
  theyChange({ summary: 'Theirs' })
  await sheet.load()
  await saveFrom('summary', 'Mine', 'Tap drips')
  await settled()
  expect(conflict.value?.fields).toEqual([{ field: 'summary', theirs: 'Theirs', yours: 'Mine' }])
  expect(sent.some((one) => one.method === 'PATCH')).toBe(false)
})

test('an empty field and one that never was are the same', async () => {
  const { row } = served()
  const { saveFrom, conflict } = await open()
  await saveFrom('access', 'Key 2', '')
  expect(conflict.value).toBeNull()
  expect(row.access).toBe('Key 2')
})

test('theirs that arrives by itself while ours is on its way is still a choice, never written over', async () => {
  const { row, theyChange } = served()
  const { sheet, save, conflict } = await open()
  theyChange({ summary: 'Tap is being watched' })
  // Sent from what was on the screen; before the refusal is read, the live line has brought theirs.
  const ours = save({ summary: 'Tap drips fast' })
  await Promise.resolve()
  sheet.value.value = { ...row }
  expect(await ours).toBe(false)
  expect(conflict.value).toMatchObject({ fields: [{ field: 'summary', theirs: 'Tap is being watched', yours: 'Tap drips fast' }] })
  expect(row.summary).toBe('Tap is being watched')
})
