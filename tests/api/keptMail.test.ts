import { createHash, randomBytes } from 'node:crypto'
import { dismissMail, listKeptMail, readKeptMail, readKeptMailFile, readRawMail, readRequest, takeKeptMail, writeComment } from '#contract/requests'
import { readAttachment } from '#contract/orders'
import { castAt, deskMail, House, report, requestInFull } from '../kit'
import type { Cast, Running, Incoming } from '../kit'

/** Mail is kept whole: what is long, large, forwarded, folded or left alone can be opened at the desk. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('keptmail', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const { send, sendRaw, outcome } = deskMail(() => house)

const sheetOf = (mail: Incoming) => requestInFull(cast.coordinator, mail.request_id!)
const bytesOf = async (address: string) =>
  Buffer.from(await (await fetch(`${server.url}${address}`, { headers: { Cookie: cast.coordinator.session } })).arrayBuffer())
const sum = (content: Buffer) => createHash('sha256').update(content).digest('hex')

test.each([
  ['-----Original Message-----\nFrom: Tenant\nSent: Monday\nTo: Me\nSubject: Heating\n\nThe heating in the café is off.'],
  ['---------- Forwarded message ---------\nThe heating in the café is off.'],
  ['From: tenant@cafe.example\nThe heating in the café is off.'],
  ['________________________________\nFrom: Tenant\nSent: Monday\nTo: Me\n\nThe heating in the café is off.'],
])('a new mail that forwards another is about what it forwards: %#', async (forwarded) => {
  const sheet = await sheetOf(await outcome(() => send({ subject: `Fwd: Heating ${randomBytes(3).toString('hex')}`, text: `FYI\n\n${forwarded}` })))
  expect(sheet.description).toContain('The heating in the café is off.')
  expect(sheet.description).toContain('FYI')
})

test('what does not fit is said, and all of it can be opened: a long text, many files, a long subject', async () => {
  const text = Array.from({ length: 900 }, (_, n) => `Line ${n} of what happened.`).join('\n')
  const files = Array.from({ length: 14 }, (_, n) => ({ filename: `note-${n}.txt`, content: `file ${n}` }))
  const mail = await outcome(() => send({ subject: `A story ${'very '.repeat(40)}long`, text, attachments: files }))
  const sheet = await sheetOf(mail)
  expect(sheet.attachments).toHaveLength(14)
  expect(sheet.summary).toHaveLength(140)
  expect(sheet.description).toContain('very long')
  expect(sheet.mails).toMatchObject([{ id: mail.id, leftOut: expect.stringContaining('signs') }])
  const whole = await cast.coordinator.must(readKeptMail, { id: mail.id })
  expect(whole.text).toBe(text)
  expect(whole.files.map((file) => file.name)).toEqual(files.map((file) => file.filename))
})

test('a mail of 20 MB arrives whole, with its attachment as it was sent', async () => {
  const content = randomBytes(13 * 1024 * 1024)
  const mail = await outcome(() => send({ subject: 'A large plan', text: 'See the plan.', attachments: [{ filename: 'plan.bin', content }] }))
  const sheet = await sheetOf(mail)
  const kept = await bytesOf(readAttachment.path.replace(':id', String(sheet.attachments[0]!.id)))
  expect([kept.length, sum(kept)]).toEqual([content.length, sum(content)])
  expect(sum(await bytesOf(readKeptMailFile.path.replace(':id', String(mail.id)).replace(':index', '0')))).toBe(sum(content))
  const [stored] = await house.rows<{ checksum: string; bytes: number }>(
    'SELECT checksum, bytes FROM stored_file JOIN incoming_mail m ON m.file_id = stored_file.id WHERE m.id = ?',
    [mail.id],
  )
  const raw = await bytesOf(readRawMail.path.replace(':id', String(mail.id)))
  expect([raw.length, sum(raw)]).toEqual([stored!.bytes, stored!.checksum])
})

test('one over the limit is answered, kept whole, and can become a request', async () => {
  const content = randomBytes(21 * 1024 * 1024)
  const mail = await outcome(() =>
    send({ from: 'film@reporter.example', subject: 'A film of the leak', text: 'Water everywhere.', attachments: [{ filename: 'film.mp4', content }] }),
  )
  expect(mail).toMatchObject({ state: 'refused', reason: expect.stringContaining('kept whole') })
  expect((await house.mail('film@reporter.example')).text).toContain('/c/SKE')
  const made = await cast.coordinator.must(takeKeptMail, { id: mail.id })
  const sheet = await cast.coordinator.must(readRequest, { id: made.requestId })
  expect(sum(await bytesOf(readAttachment.path.replace(':id', String(sheet.attachments[0]!.id))))).toBe(sum(content))
})

test('another person’s mail with the same Message-ID is another mail; the same one twice is one', async () => {
  const same = { messageId: '<same@reporter.example>', subject: 'First of two' }
  const first = await outcome(() => send({ ...same, text: 'Mine.' }))
  const other = await outcome(() => send({ ...same, from: 'other@reporter.example', subject: 'Second of two', text: 'Another matter.' }))
  expect(other.request_id).not.toBe(first.request_id)
  await send({ ...same, text: 'Mine.' })
  await outcome(() => send({ subject: 'After it', text: 'x' }))
  expect(await house.rows("SELECT id FROM request WHERE summary IN ('First of two', 'Second of two')")).toHaveLength(2)
})

test('what a reply folds away can be opened with the whole mail', async () => {
  const { id } = await report(cast, { email: 'folds@reporter.example' })
  await cast.coordinator.must(writeComment, { id, kind: 'message', text: 'Which one?' })
  const ours = (await house.mail('folds@reporter.example', (mail) => mail.text.includes('Which one?'))) as unknown as { replyTo: string; messageId: string }
  const mail = await outcome(() =>
    send({
      from: 'folds@reporter.example',
      to: ours.replyTo,
      subject: 'Re: it',
      text: 'The left.\n\nVon: Desk\nGesendet: heute\nAn: mich\n\nWhich one?',
      inReplyTo: ours.messageId,
    }),
  )
  const sheet = await sheetOf(mail)
  expect(sheet.conversation.rows.at(-1)).toMatchObject({ text: 'The left.', quoted: expect.stringContaining('Von: Desk') })
  expect((await cast.coordinator.must(readKeptMail, { id: mail.id })).text).toContain('Which one?')
})

test('kept mail is read before it becomes a request, is dismissed with a reason, and every one can be taken', async () => {
  const listed = () => cast.coordinator.must(listKeptMail, {}).then(({ rows }) => rows.map((row) => row.id))
  const ignored = await outcome(() => sendRaw('From: list@x.example\r\nSubject: Offer\r\nPrecedence: bulk\r\n\r\nBuy now.', 'list@x.example'))
  expect(await listed()).toContain(ignored.id)
  expect(await cast.coordinator.must(readKeptMail, { id: ignored.id })).toMatchObject({ text: 'Buy now.', subject: 'Offer', state: 'ignored' })
  expect((await cast.coordinator.call(dismissMail, { id: ignored.id, reason: ' ' })).status).toBe(400)
  await cast.coordinator.must(dismissMail, { id: ignored.id, reason: 'An advertisement' })
  expect(await listed()).not.toContain(ignored.id)
  expect((await cast.coordinator.call(takeKeptMail, { id: ignored.id })).status).toBe(422)
  expect(await house.rows('SELECT state, reason FROM incoming_mail WHERE id = ?', [ignored.id])).toEqual([{ state: 'dismissed', reason: 'An advertisement' }])
  expect(await house.rows("SELECT reason FROM event WHERE kind = 'mail.dismiss'")).toEqual([{ reason: 'An advertisement' }])
  // A header of more than a megabyte is a mail all the same.
  const huge = `From: huge@x.example\r\nSubject: Leak under the stairs\r\nX-Long: ${'y'.repeat(1_200_000)}\r\nPrecedence: bulk\r\n\r\nWater on the floor.`
  const kept = await outcome(() => sendRaw(huge, 'huge@x.example'))
  const made = await cast.coordinator.must(takeKeptMail, { id: kept.id })
  expect(await cast.coordinator.must(readRequest, { id: made.requestId })).toMatchObject({
    summary: 'Leak under the stairs',
    description: 'Water on the floor.',
  })
  // Nobody of another site reads it.
  expect((await cast.technician.call(readKeptMail, { id: kept.id })).status).toBe(403)
  await house.rows(
    "UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = (SELECT id FROM account WHERE email LIKE 'maren.quill@%')",
  )
  expect((await cast.coordinator.call(readKeptMail, { id: kept.id })).status).toBe(404)
  expect((await fetch(`${server.url}/api/kept-mail/${kept.id}/raw`, { headers: { Cookie: cast.coordinator.session } })).status).toBe(404)
})
