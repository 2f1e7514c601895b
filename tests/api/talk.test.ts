import sharp from 'sharp'
import { readJob, switchStint } from '#contract/field'
import { readAttachment, readOrder } from '#contract/orders'
import { trackRequest, writeAsReporter } from '#contract/requests'
import { addSaidPhoto, addTalkPhoto, readTalk, sayOnJob, sayOnOrder } from '#contract/talk'
import { addVendor, addPassSaidPhoto, readPass, readPassFile, sayByPass } from '#contract/vendors'
import { castAt, Client, dispatched, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** What is said on an order: between the desk, those on it and whoever reported it; each reads what is for them, and hears of it once. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('talk', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

let marks = 0
const mark = () => `talk-mark-${String(++marks).padStart(10, '0')}`
const picture = async () =>
  new Blob([
    new Uint8Array(
      await sharp({ create: { width: 60, height: 30, channels: 3, background: '#fff' } })
        .jpeg()
        .toBuffer(),
    ),
  ])
const texts = (talk: { rows: { text: string }[] }) => talk.rows.map(({ text }) => text)
const mailsTo = async (email: string) =>
  (
    await house.rows<{ subject: string; text: string }>("SELECT subject, text FROM mail WHERE `to` = ? AND occasion IN ('talk', 'message') ORDER BY id", [
      email,
    ])
  ).map(({ text }) => text)
async function heard(email: string, words: string): Promise<void> {
  await house.mail(email, ({ text }) => text.includes(words))
}

test('desk and technician write to each other; the other side is told, nobody else reads it', async () => {
  const { id, visitId, token } = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(sayOnOrder, { orderId: id, mark: mark(), audience: 'ours', text: 'The key hangs in the porch' })
  await heard('bram.oyelaran@skerry.example', 'The key hangs in the porch')
  const job = await cast.technician.must(sayOnJob, { visitId, mark: mark(), audience: 'ours', text: 'Thanks, found it' })
  expect(job.talk.rows.map(({ who, mine, speaker }) => [who, mine, speaker])).toEqual([
    ['Maren Quill', false, 'desk'],
    ['Bram Oyelaran', true, 'crew'],
  ])
  await cast.coordinator.hears((sentence) => sentence.includes('Bram Oyelaran wrote on') && sentence.includes('Thanks, found it'))
  expect(texts(await cast.coordinator.must(readTalk, { orderId: id }))).toEqual(['The key hangs in the porch', 'Thanks, found it'])
  expect(JSON.stringify(await cast.anybody.must(trackRequest, { token }))).not.toContain('porch')
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await stranger.call(sayOnJob, { visitId, mark: mark(), audience: 'ours', text: 'Hello' })).status).toBe(404)
  expect((await stranger.call(readTalk, { orderId: id })).status).toBe(403)
})

test('the reporter is mailed what is for them, sees its photo, and their answer reaches who is on the job', async () => {
  const { id, visitId, token } = await orderAt(cast, 'dispatched')
  expect((await cast.technician.must(readJob, { visitId })).talk.to.map(({ audience, label }) => [audience, label])).toEqual([
    ['ours', 'The desk'],
    ['reporter', 'Aoife Ashdown, who reported it'],
  ])
  const named = mark()
  await cast.technician.must(sayOnJob, { visitId, mark: named, audience: 'reporter', text: 'Is it this lamp?' })
  await cast.technician.must(addSaidPhoto, { visitId, mark: named }, { file: await picture() })
  await heard('aoife@reporter.example', 'Is it this lamp?')
  const page = await cast.anybody.must(trackRequest, { token })
  expect(page.messages).toEqual([expect.objectContaining({ from: 'Bram Oyelaran, technician', mine: false, text: 'Is it this lamp?' })])
  expect(page.messages[0]!.files).toHaveLength(1)
  expect(page.files).toEqual([])
  await cast.anybody.must(writeAsReporter, { token, text: 'No, the one beside it' })
  await heard('bram.oyelaran@skerry.example', 'No, the one beside it')
  const { talk } = await cast.technician.must(readJob, { visitId })
  expect(talk.rows.map(({ speaker, who, text }) => [speaker, who, text])).toEqual([
    ['crew', 'Bram Oyelaran', 'Is it this lamp?'],
    ['reporter', 'Aoife Ashdown', 'No, the one beside it'],
  ])
  // Once each, also at the desk, where it is said in the conversation of the request too.
  expect(texts(await cast.coordinator.must(readTalk, { orderId: id }))).toEqual(['Is it this lamp?', 'No, the one beside it'])
  expect(JSON.stringify(talk)).not.toContain('aoife@')
})

test('between desk and vendor it stays between them, also from another vendor and from our own people', async () => {
  const email = 'talking@vendor.example'
  const { id: vendorId } = await cast.coordinator.must(addVendor, { name: 'Talking Ltd', email })
  const { id } = await orderAt(cast, 'ready')
  await dispatched(cast, id, { vendorId, technicianIds: [1] })
  const token = /\/p\/([\w-]+)/.exec((await house.mail(email)).text)![1]!
  const vendor = new Client(server.url)
  const visits = (await cast.coordinator.must(readOrder, { id })).visits
  const [visitId, ownVisit] = [visits.find((one) => one.vendorId !== null)!.id, visits.find((one) => one.technicianId === 1)!.id]
  await cast.coordinator.must(sayOnOrder, { orderId: id, mark: mark(), audience: 'vendor', visitId, text: 'Bring the long ladder' })
  await heard(email, 'Bring the long ladder')
  await cast.coordinator.must(sayOnOrder, { orderId: id, mark: mark(), audience: 'ours', text: 'They are always late' })
  const named = mark()
  const said = await vendor.must(sayByPass, { token, mark: named, text: 'Ladder is on the van' })
  expect(said.talk.rows.map(({ text, mine }) => [text, mine])).toEqual([
    ['Bring the long ladder', false],
    ['Ladder is on the van', true],
  ])
  const { talk } = await vendor.must(addPassSaidPhoto, { token, mark: named }, { file: await picture() })
  expect((await vendor.call(readPassFile, { token, fileId: talk.rows[1]!.photos[0]!.id })).status).toBe(200)
  expect((await cast.technician.call(readAttachment, { id: talk.rows[1]!.photos[0]!.id })).status).toBe(404)
  await cast.coordinator.hears((sentence) => sentence.includes('Talking Ltd wrote on'))
  await heard('maren.quill@skerry.example', 'Ladder is on the van')
  expect(texts((await cast.technician.must(readJob, { visitId: ownVisit })).talk)).toEqual(['They are always late'])
  expect(texts((await vendor.must(readPass, { token })).talk)).not.toContain('They are always late')
  // A photo of what was said among us is not the vendor’s to open.
  const ours = mark()
  await cast.coordinator.must(sayOnOrder, { orderId: id, mark: ours, audience: 'ours', text: 'Look' })
  const { rows } = await cast.coordinator.must(addTalkPhoto, { orderId: id, mark: ours }, { file: await picture() })
  const photo = rows.at(-1)!.photos[0]!.id
  expect((await vendor.call(readPassFile, { token, fileId: photo })).status).toBe(404)
  expect((await cast.technician.call(readAttachment, { id: photo })).status).toBe(200)
})

test('nothing is said twice, to nobody, or by who may not; what was recorded late stands at its moment', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  const named = mark()
  const say = () => cast.technician.call(sayOnJob, { visitId, mark: named, audience: 'ours', text: 'Once' })
  expect([(await say()).status, (await say()).status]).toEqual([200, 422])
  const field = async (reply: Promise<{ problem: { reasons?: { field?: string }[] } }>) => (await reply).problem.reasons?.[0]?.field
  expect(await field(cast.technician.call(sayOnJob, { visitId, mark: mark(), audience: 'vendor', text: 'x' }))).toBe('audience')
  expect(await field(cast.coordinator.call(sayOnOrder, { orderId: id, mark: mark(), audience: 'vendor', text: 'x' }))).toBe('audience')
  expect(await field(cast.coordinator.call(sayOnOrder, { orderId: id, mark: mark(), audience: 'vendor', visitId, text: 'x' }))).toBe('audience')
  expect(await field(cast.technician.call(sayOnJob, { visitId, mark: mark(), audience: 'ours', text: '  ' }))).toBe('text')
  expect((await cast.clerk.call(sayOnOrder, { orderId: id, mark: mark(), audience: 'ours', text: 'x' })).status).toBe(403)
  expect((await cast.technician.call(addSaidPhoto, { visitId, mark: mark() }, { file: await picture() })).status).toBe(404)
  await cast.technician.must(sayOnJob, { visitId, mark: mark(), audience: 'ours', text: 'Earlier', happenedAt: '2026-11-23T08:00:00Z' })
  expect(texts(await cast.coordinator.must(readTalk, { orderId: id }))).toEqual(['Earlier', 'Once'])
  expect(await mailsTo('bram.oyelaran@skerry.example')).not.toContain('“Once”')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
})
