import { readdirSync } from 'node:fs'
import { read, utils } from '@e965/xlsx'
import { exportList } from '#contract/lists'
import {
  askForMine,
  askReporter,
  confirmFollow,
  declineRequest,
  followRequest,
  joinRequest,
  listRequests,
  readAround,
  readMine,
  readRequest,
  reportRequest,
  sayNotFixed,
  trackRequest,
  uploadCounterFile,
  writeAsReporter,
  writeComment,
} from '#contract/requests'
import { makeApiKey } from '#contract/setup'
import { castAt, Client, deskMail, House, orderAt, report, requestInFull } from '../kit'
import type { Cast, Running } from '../kit'

/** What strangers can see, cause and send: followers, names, floods, odd signs. */
let house: House
let server: Running
let cast: Cast
let admin: Client

beforeAll(async () => {
  house = await House.open('strangers', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(() => house?.close())

const tokenIn = (text: string, page: string) => new RegExp(`/${page}/([A-Za-z0-9_-]{43})`).exec(text)![1]!
const { send } = deskMail(() => house)
const mailsTo = (to: string) =>
  house.rows<{ occasion: string; subject: string; text: string }>('SELECT occasion, subject, text FROM mail WHERE `to` = ? ORDER BY id', [to])
/** What became of the newest mail from an address. */
async function taken(from: string): Promise<{ state: string; request_id: number }> {
  for (let n = 0; n < 100; n++) {
    const [row] = await house.rows<{ state: string; request_id: number }>(
      "SELECT state, request_id FROM incoming_mail WHERE sender = ? AND state <> 'waiting' ORDER BY id DESC LIMIT 1",
      [from],
    )
    if (row) return row
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error('Nothing became of the mail.')
}
type Mail = { subject: string; text: string; replyTo: string; messageId: string }

describe('those who follow', () => {
  const follower = 'me-too@reporter.example'
  let id = 0
  let token = ''

  test('confirm their address before anything but that link is sent to it', async () => {
    ;({ id } = await report(cast, { summary: 'Water under the sink in the lab', email: 'first-of-all@reporter.example' }))
    await cast.anybody.must(followRequest, { site: 'SKE', id, email: follower, name: 'Second' })
    const confirm = await house.mail(follower)
    token = tokenIn(confirm.text, 't')
    expect(confirm.text).not.toContain('Water under')
    // Asked, answered, closed and opened again: none of it goes to an address nobody confirmed.
    await cast.coordinator.must(writeComment, { id, kind: 'message', text: 'Somebody looks at it today.' })
    expect((await mailsTo(follower)).map((mail) => mail.occasion)).toEqual(['confirm'])
    const page = await cast.anybody.must(trackRequest, { token })
    expect([page.toConfirm, page.messages, page.steps, page.description]).toEqual([true, [], [], null])
    await cast.anybody.must(confirmFollow, { token })
    await cast.anybody.must(confirmFollow, { token })
    const words = await house.mail(follower, (mail) => mail.text.includes('It was reported already'))
    expect(words.text).not.toContain('What you follow')
    expect((await house.rows("SELECT id FROM event WHERE kind = 'request.follow' AND request_id = ?", [id])).length).toBe(1)
  })

  test('read what readAround shows, and nothing of what desk and reporter say to each other', async () => {
    const { version } = await cast.coordinator.must(readRequest, { id })
    await cast.coordinator.must(askReporter, { id, version, reason: 'Is the cupboard with the poison wet?' })
    await house.mail('first-of-all@reporter.example', (mail) => mail.text.includes('poison'))
    const [place] = await house.rows<{ place_id: number }>('SELECT place_id FROM request WHERE id = ?', [id])
    const around = (await cast.anybody.must(readAround, { site: 'SKE', placeId: place!.place_id })).requests.find((one) => one.id === id)!
    const seen = await cast.anybody.must(trackRequest, { token })
    expect(seen.progress).toEqual(around.progress)
    expect(JSON.stringify([seen, around, await mailsTo(follower)])).not.toContain('poison')
  })

  test('answering our mail makes a request of their own, never the reporter’s words', async () => {
    const ours = (await house.mail(follower, (mail) => mail.text.includes('It was reported already'))) as unknown as Mail
    await send({ from: follower, to: ours.replyTo, subject: `Re: ${ours.subject}`, text: 'It drips in room 12 too.', inReplyTo: ours.messageId })
    const became = await taken(follower)
    expect(became.state).toBe('request')
    expect(became.request_id).not.toBe(id)
    const own = await cast.coordinator.must(readRequest, { id: became.request_id })
    expect([own.state, own.reporter.email]).toEqual(['new', follower])
    expect((await requestInFull(cast.coordinator, id)).conversation.rows.map((row) => row.text)).toEqual(['Somebody looks at it today.'])
    expect((await cast.coordinator.must(readRequest, { id })).state).toBe('asked')
  })

  test('a reporter’s mail answered from another address is a note for the desk, under that address', async () => {
    const theirs = (await house.mail('first-of-all@reporter.example', (mail) => mail.text.includes('poison'))) as unknown as Mail
    await send({ from: 'colleague@reporter.example', to: theirs.replyTo, subject: 'Re: x', text: 'No, it is dry.', inReplyTo: theirs.messageId })
    expect((await taken('colleague@reporter.example')).state).toBe('joined')
    const sheet = await requestInFull(cast.coordinator, id)
    expect(sheet.state).toBe('asked')
    expect(sheet.conversation.rows.at(-1)).toMatchObject({
      kind: 'note',
      fromReporter: false,
      text: 'No, it is dry.',
      author: expect.stringContaining('colleague@reporter.example'),
    })
    const { token: reporters } = await house.mail('first-of-all@reporter.example').then((mail) => ({ token: tokenIn(mail.text, 't') }))
    expect((await cast.anybody.must(trackRequest, { token: reporters })).messages.map((one) => one.text)).not.toContain('No, it is dry.')
  })

  test('when it is declined they hear that it was closed, the reporter alone hears why', async () => {
    const { version } = await cast.coordinator.must(readRequest, { id })
    await cast.coordinator.must(declineRequest, { id, version, reason: 'The tenant has to pay for that.' })
    expect((await house.mail('first-of-all@reporter.example', (mail) => mail.text.includes('tenant'))).text).toContain('tenant')
    expect((await house.mail(follower, (mail) => mail.text.includes('called off'))).text).not.toContain('tenant')
    const seen = await cast.anybody.must(trackRequest, { token })
    expect(seen.progress).toEqual({ step: 'closed', sentence: 'It was closed. Call the desk if it is still needed.' })
  })
})

test('whoever told the same has a thread of their own: nothing of the other’s, in page, list, mail or GeoReport', async () => {
  const main = await report(cast, { summary: 'The lift doors bang', email: 'main@reporter.example' })
  const { key } = await admin.must(makeApiKey, { siteId: 1, name: 'Sensors' })
  const body = new URLSearchParams({ api_key: key, service_code: 'lift', description: 'Lift doors bang', address_id: 'TID', email: 'joined@reporter.example' })
  const [made] = (await (await fetch(`${server.url}/open311/v2/requests.json`, { method: 'POST', body })).json()) as { service_request_id: string }[]
  const { rows } = await cast.coordinator.must(listRequests, { q: made!.service_request_id })
  const joined = await cast.coordinator.must(readRequest, { id: rows[0]!.id })
  const token = tokenIn((await house.mail('joined@reporter.example')).text, 't')
  await cast.coordinator.must(joinRequest, { id: joined.id, version: joined.version, toId: main.id })
  const { version } = await cast.coordinator.must(readRequest, { id: main.id })
  await cast.coordinator.must(askReporter, { id: main.id, version, reason: 'Did it hurt your daughter?' })
  await cast.coordinator.must(writeComment, { id: main.id, kind: 'message', text: 'We are sorry about your daughter.' })
  await house.mail('main@reporter.example', (mail) => mail.text.includes('sorry'))
  const georeport = async () => (await fetch(`${server.url}/open311/v2/requests/${made!.service_request_id}.json?api_key=${key}`)).text()
  await cast.anybody.must(askForMine, { site: 'SKE', email: 'joined@reporter.example' })
  const mine = tokenIn((await house.mail('joined@reporter.example', (mail) => mail.text.includes('/mine/'))).text, 'mine')
  const everything = async () =>
    JSON.stringify([
      await cast.anybody.must(trackRequest, { token }),
      await cast.anybody.must(readMine, { token: mine }),
      await georeport(),
      await mailsTo('joined@reporter.example'),
    ])
  expect(await everything()).not.toContain('daughter')
  // What they write is theirs and stands in their own thread.
  await cast.anybody.must(writeAsReporter, { token, text: 'It bangs on floor two as well.' })
  expect((await requestInFull(cast.coordinator, main.id)).conversation.rows.map((row) => row.text)).not.toContain('It bangs on floor two as well.')
  const asked = await cast.coordinator.must(readRequest, { id: main.id })
  await cast.coordinator.must(declineRequest, { id: main.id, version: asked.version, reason: 'Settled with your daughter’s school.' })
  await house.mail('joined@reporter.example', (mail) => mail.text.includes('called off'))
  expect(await everything()).not.toContain('daughter')
})

describe('mail a stranger can cause', () => {
  test('is limited by address and by request, and the answer is the same', async () => {
    const victim = 'victim@elsewhere.example'
    for (let n = 0; n < 8; n++) expect((await cast.anybody.call(askForMine, { site: 'SKE', email: victim })).body).toEqual({ sent: true })
    expect((await mailsTo(victim)).filter((mail) => mail.occasion === 'mine')).toHaveLength(3)
    for (let n = 0; n < 6; n++) {
      const { id } = await report(cast, { summary: `Lamp ${n} is out`, email: undefined })
      await cast.anybody.must(followRequest, { site: 'SKE', id, email: victim })
    }
    expect((await mailsTo(victim)).filter((mail) => mail.occasion === 'confirm')).toHaveLength(4)
    const { id } = await report(cast, { summary: 'A popular trouble' })
    await Promise.all(Array.from({ length: 26 }, (_, n) => cast.anybody.must(followRequest, { site: 'SKE', id, email: `crowd-${n}@elsewhere.example` })))
    expect(await house.rows("SELECT id FROM mail WHERE occasion = 'confirm' AND request_id = ?", [id])).toHaveLength(20)
  })

  test('of requests beyond the limit none is lost, only the acknowledgement', async () => {
    const flood = 'flooded@elsewhere.example'
    for (let n = 0; n < 15; n++) await cast.anybody.must(reportRequest, { site: 'SKE', placeId: 20, summary: `Flood ${n}`, description: 'x', email: flood })
    await house.mail(flood)
    for (let n = 0; n < 40 && (await house.rows('SELECT id FROM event WHERE seq IS NULL')).length; n++) await new Promise((resolve) => setTimeout(resolve, 100))
    expect((await mailsTo(flood)).filter((mail) => mail.occasion === 'received')).toHaveLength(12)
    expect(await house.rows('SELECT id FROM request WHERE reporter_email = ?', [flood])).toHaveLength(15)
  })

  test('carries no links of theirs: a name is one line without them, and what they wrote goes out without', async () => {
    const told = { site: 'SKE', placeId: 20, summary: 'Win a boat at https://evil.example/win now', description: 'x', email: 'target@elsewhere.example' }
    for (const name of ['Click http://evil.example', 'www.evil.example', 'Two\nlines', 'evil-shop.com'])
      expect((await cast.anybody.call(reportRequest, { ...told, name })).problem.reasons![0]!.field).toBe('name')
    await cast.anybody.must(reportRequest, { ...told, name: 'Anna-Lena O’Brien' })
    const mail = await house.mail('target@elsewhere.example')
    expect(`${mail.subject} ${mail.text}`).not.toContain('evil.example')
    expect(mail.text).toContain('Hello Anna-Lena O’Brien')
    await send({ from: '"Buy at http://evil.example" <spam@elsewhere.example>', subject: 'Tap drips', text: 'It drips.' })
    await taken('spam@elsewhere.example')
    expect((await house.mail('spam@elsewhere.example')).text).not.toContain('evil.example')
  })
})

describe('private links', () => {
  test('stand in the database no longer than they are needed', async () => {
    const { token } = await report(cast, { summary: 'Kept secret', email: 'secret@reporter.example' })
    await house.mail('secret@reporter.example')
    for (let n = 0; n < 40 && (await house.rows("SELECT id FROM mail WHERE state = 'waiting'")).length; n++)
      await new Promise((resolve) => setTimeout(resolve, 150))
    expect(await house.rows('SELECT id FROM mail WHERE text LIKE ? OR html LIKE ?', [`%${token}%`, `%${token}%`])).toEqual([])
    expect((await mailsTo('secret@reporter.example'))[0]!.text).toContain('/…')
    expect(await house.rows('SELECT id FROM idempotency_key WHERE answer LIKE ?', [`%${token}%`])).toHaveLength(1)
    // A day later, by the clock of the next server that looks.
    const later = await house.start({ EVRIX_NOW: '2026-11-24T11:30:00Z', EVRIX_INBOUND_PORT: '' })
    for (let n = 0; n < 60 && (await house.rows('SELECT id FROM idempotency_key WHERE answer LIKE ?', [`%${token}%`])).length; n++)
      await new Promise((resolve) => setTimeout(resolve, 100))
    expect(await house.rows('SELECT id FROM idempotency_key WHERE answer LIKE ?', [`%${token}%`])).toEqual([])
    await later.stop()
    // By that clock everybody's session was over.
    cast = await castAt(server.url)
    admin = await new Client(server.url).signIn('wendeline.stroud')
  })

  test('what was sent ahead and never claimed, old sessions and old tries are swept', async () => {
    await cast.anybody.must(uploadCounterFile, { site: 'SKE', name: 'never.txt' }, { file: new Blob(['never claimed']) })
    const { token } = await report(cast)
    await house.rows("INSERT INTO session (token_hash, account_id, created_at, expires_at) VALUES ('old', 1, '2026-11-01', '2026-11-02')")
    await house.rows("INSERT INTO sign_in_try (pair_hash, tries, next_at) VALUES ('old', 9, '2026-11-01')")
    await house.rows("UPDATE setting SET value = '0' WHERE name = 'swept_at'")
    const later = await house.start({ EVRIX_NOW: '2026-11-27T11:30:00Z', EVRIX_INBOUND_PORT: '' })
    const left = () =>
      house.rows(
        "SELECT 1 AS n FROM attachment WHERE claim_hash IS NOT NULL UNION ALL SELECT 1 FROM session WHERE token_hash = 'old' UNION ALL SELECT 1 FROM sign_in_try WHERE pair_hash = 'old'",
      )
    for (let n = 0; n < 60 && (await left()).length; n++) await new Promise((resolve) => setTimeout(resolve, 100))
    expect(await left()).toEqual([])
    expect((await cast.anybody.must(trackRequest, { token })).number).toMatch(/^R-/)
    await later.stop()
    cast = await castAt(server.url)
  })
})

test('a file is taken only from whoever may send it: nothing of another is read', async () => {
  const big = new Blob([new Uint8Array(9 * 1024 * 1024)])
  const refused = await cast.anybody.call(uploadCounterFile, { site: 'NOWHERE', name: 'x' }, { file: big })
  expect(refused.status).toBe(404)
  const kept = () =>
    readdirSync(house.folder)
      .filter((name) => name === 'uploads')
      .flatMap((name) => readdirSync(`${house.folder}/${name}`))
  expect(kept()).toEqual([])
  await cast.anybody.must(uploadCounterFile, { site: 'SKE', name: 'x.bin' }, { file: new Blob([new Uint8Array(2_000_000)]) })
  for (let n = 0; n < 20 && kept().length; n++) await new Promise((resolve) => setTimeout(resolve, 50))
  expect(kept()).toEqual([])
})

test('signs no format can carry are cleaned at the door, and break no export', async () => {
  const odd = 'Odd \uFFFE\uFFFF \uD800 \u202Egnp \u0007 sign'
  const sent = await cast.anybody.must(reportRequest, { site: 'SKE', placeId: 20, summary: odd, description: `${odd}\r\nsecond line`, name: 'Odd \u202EName' })
  const [row] = await house.rows<{ id: number; summary: string; description: string; reporter_name: string }>(
    'SELECT id, summary, description, reporter_name FROM request WHERE number = ?',
    [sent.number],
  )
  expect(row).toMatchObject({ summary: 'Odd   gnp  sign', description: 'Odd   gnp  sign\nsecond line', reporter_name: 'Odd Name' })
  await house.rows('UPDATE request SET summary = ? WHERE id = ?', ['From before \uFFFE\u0001 all this', row!.id])
  const address = `${server.url}${exportList.path.replace(':kind', 'requests')}?format=xlsx&ask=${encodeURIComponent('columns=number,summary')}`
  const book = read(Buffer.from(await (await fetch(address, { headers: { Cookie: cast.coordinator.session } })).arrayBuffer()))
  expect(utils.sheet_to_csv(book.Sheets[book.SheetNames[0]!]!)).toContain('From before  all this')
  const claim = await cast.anybody.must(uploadCounterFile, { site: 'SKE', name: 'harmless\u202Efdp.exe' }, { file: new Blob(['x']) })
  expect(claim.name).toBe('harmlessfdp.exe')
})

test('“not fixed” sent twice is one request; the second shows the first', async () => {
  const { id, token } = await orderAt(cast, 'checked')
  expect(id).toBeGreaterThan(0)
  const [first, second] = await Promise.all([
    cast.anybody.call(sayNotFixed, { token, text: 'It drips again.' }),
    cast.anybody.call(sayNotFixed, { token, text: 'It drips again, really.' }),
  ])
  const third = await cast.anybody.call(sayNotFixed, { token, text: 'Hello?' })
  expect([first.status, second.status, third.status].sort()).toEqual([200, 422, 422])
  const made = await house.rows<{ number: string }>("SELECT number FROM request WHERE summary LIKE 'Not fixed:%'")
  expect(made).toHaveLength(1)
  expect(third.problem.reasons![0]!.sentence).toContain(made[0]!.number)
  const page = await cast.anybody.must(trackRequest, { token })
  expect([page.maySayNotFixed, page.toldAgain]).toEqual([false, made[0]!.number])
})
