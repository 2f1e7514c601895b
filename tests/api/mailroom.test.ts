import { connect } from 'node:net'
import sharp from 'sharp'
import { readAttachment } from '#contract/orders'
import {
  acceptRequest,
  askReporter,
  listKeptMail,
  readRequest,
  takeKeptMail,
  trackRequest,
  triageRequest,
  writeAsReporter,
  writeComment,
} from '#contract/requests'
import { dropWording, previewWording, readIntakeSetup, saveWording } from '#contract/setup'
import { castAt, Client, DESK, deskMail, House, report, requestInFull } from '../kit'
import type { Cast, Running, Incoming } from '../kit'

/** Mail to a site's address by real SMTP, from a mail library and from raw messages. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('mailroom', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const { transport, send, sendRaw, outcome } = deskMail(() => house)

const requestOf = (mail: Incoming) => cast.coordinator.must(readRequest, { id: mail.request_id! })
const photo = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#1F7A7A' } })
    .png()
    .toBuffer()

describe('a new mail becomes a request', () => {
  test('subject, text, sender and files; the acknowledgement answers it in the sender’s mail program', async () => {
    const [person] = await house.rows<{ id: number; name: string; email: string }>(
      "SELECT id, name, email FROM person WHERE email IS NOT NULL AND title = 'Researcher' LIMIT 1",
    )
    const mail = await outcome(async () =>
      send({
        from: `"Somebody" <${person!.email}>`,
        subject: 'The cold room door does not close',
        text: 'It springs open again.\nSince this morning, I saw it myself.',
        messageId: '<first-one@reporter.example>',
        attachments: [
          { filename: 'door.png', content: await photo() },
          { filename: '../../../etc/plan "x".pdf', content: Buffer.from('%PDF-1.4\n%%EOF') },
        ],
      }),
    )
    expect(mail).toMatchObject({ state: 'request', reason: null })
    const sheet = await requestOf(mail)
    expect(sheet).toMatchObject({
      channel: 'email',
      state: 'new',
      summary: 'The cold room door does not close',
      description: 'It springs open again.\nSince this morning, I saw it myself.',
      place: null,
      reporter: { id: person!.id, email: person!.email },
    })
    expect(sheet.attachments.map((file) => [file.kind, file.name])).toEqual([
      ['picture', 'door.jpg'],
      ['document', 'plan x.pdf'],
    ])
    const [pdf] = sheet.attachments.filter((file) => file.kind === 'document')
    const download = await cast.coordinator.call(readAttachment, { id: pdf!.id })
    expect(download.headers.get('content-disposition')).toContain('attachment')
    expect(download.headers.get('content-type')).toBe('application/octet-stream')
    const ack = (await house.mail(person!.email, (one) => one.text.includes(sheet.number))) as unknown as {
      references: string[]
      replyTo: string
      subject: string
    }
    expect(ack.subject).toBe(`${sheet.number} The cold room door does not close`)
    expect(ack.references).toEqual(['<first-one@reporter.example>'])
    expect(ack.replyTo).toMatch(new RegExp(`^desk-ske\\+r${sheet.id}\\.[A-Za-z0-9_-]{22}@skerry\\.example$`))
  })

  test.each([
    ['no subject', 'From: a@reporter.example\n\nThe tap drips.\nSince Monday.', 'The tap drips.'],
    [
      '8-bit subject',
      'From: a@reporter.example\nSubject: =?iso-8859-1?Q?T=FCr_klemmt?=\nContent-Type: text/plain; charset=iso-8859-1\nContent-Transfer-Encoding: quoted-printable\n\nDie T=FCr klemmt.',
      'Tür klemmt',
    ],
    [
      'base64 in UTF-8',
      `From: a@reporter.example\nSubject: =?utf-8?B?${Buffer.from('Λάμπα σβηστή').toString('base64')}?=\nContent-Type: text/plain; charset=utf-8\nContent-Transfer-Encoding: base64\n\n${Buffer.from('Η λάμπα').toString('base64')}`,
      'Λάμπα σβηστή',
    ],
    ['only HTML', 'From: a@reporter.example\nSubject: Light out\nContent-Type: text/html\n\n<p>The <b>left</b> one.</p><script>alert(1)</script>', 'Light out'],
    ['folded header', 'From: a@reporter.example\nSubject: A very long\n subject that is folded\n\nText.', 'A very long subject that is folded'],
    [
      'nested multiparts',
      'From: a@reporter.example\nSubject: Nested\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=o\n\n--o\nContent-Type: multipart/alternative; boundary=i\n\n--i\nContent-Type: text/plain\n\nThe plain one.\n--i\nContent-Type: text/html\n\n<p>The other.</p>\n--i--\n--o--\n',
      'Nested',
    ],
  ])('%s', async (name, raw, summary) => {
    const sheet = await requestOf(await outcome(() => sendRaw(raw, `${name.replace(/\W/g, '-')}@reporter.example`)))
    expect(sheet.summary).toBe(summary)
    expect(sheet.description.length).toBeGreaterThan(3)
    expect(sheet.description).not.toContain('<')
    if (name === 'nested multiparts') expect(sheet.description).toBe('The plain one.')
  })

  test('an inline picture of an HTML mail is kept like any other', async () => {
    const mail = await outcome(async () =>
      send({ subject: 'See below', html: '<p>This one: <img src="cid:p1"></p>', attachments: [{ cid: 'p1', filename: 'p.png', content: await photo() }] }),
    )
    expect((await requestOf(mail)).attachments.map((file) => file.kind)).toEqual(['picture'])
  })

  test('delivered twice it counts once, with a Message-ID or without', async () => {
    const once = { subject: 'Twice', text: 'The same.', messageId: '<twice@reporter.example>' }
    const first = await outcome(() => send(once))
    const bare = 'From: twice@reporter.example\nSubject: No id\n\nThe very same bytes.'
    const second = await outcome(() => sendRaw(bare, 'twice@reporter.example'))
    await send(once)
    await sendRaw(bare, 'twice@reporter.example')
    // Mail is read in the order in which it came: with this one the others are done.
    await outcome(() => send({ subject: 'After both', text: 'Another.' }))
    expect(await house.rows("SELECT summary FROM request WHERE summary IN ('Twice', 'No id')")).toHaveLength(2)
    expect(first.request_id).not.toBe(second.request_id)
  })

  test('an address that is nobody’s is refused while the sender is still there', async () => {
    await expect(transport().sendMail({ from: 'a@x.example', to: 'nobody@skerry.example', text: 'x' })).rejects.toMatchObject({ responseCode: 550 })
  })
})

describe('replies join their conversation', () => {
  test('a message of the desk, answered through the stand-in’s mailbox by real SMTP: quoted text folded, files kept', async () => {
    const { id } = await report(cast, { email: 'answers@reporter.example', name: 'Noor Haddad' })
    await cast.coordinator.must(writeComment, { id, kind: 'message', text: 'Is it the one by the door?' })
    const received = (await house.mail('answers@reporter.example', (one) => one.text.includes('by the door?'))) as unknown as {
      id: number
      replyTo: string
      subject: string
      text: string
    }
    const mail = await outcome(async () => {
      const form = new FormData()
      const fields = {
        from: 'answers@reporter.example',
        to: received.replyTo,
        subject: `Re: ${received.subject}`,
        text: `Yes, that one.\n\nOn 2026-11-23 desk wrote:\n> Is it the one by the door?`,
        reply: String(received.id),
      }
      for (const [name, value] of Object.entries(fields)) form.append(name, value)
      form.append('files', new Blob([new Uint8Array(await photo())]), 'this-one.png')
      expect((await fetch(`${house.mailUrl}/write`, { method: 'POST', body: form, redirect: 'manual' })).status).toBe(303)
    })
    expect(mail).toMatchObject({ state: 'joined', request_id: id })
    const { conversation, attachments } = await requestInFull(cast.coordinator, id)
    expect(conversation.rows.at(-1)).toMatchObject({
      kind: 'message',
      fromReporter: true,
      text: 'Yes, that one.',
      quoted: 'On 2026-11-23 desk wrote:\n> Is it the one by the door?',
    })
    expect(conversation.rows.at(-1)!.files).toMatchObject([{ name: 'this-one.jpg', kind: 'picture' }])
    expect(attachments).toHaveLength(1)
  })

  test('an answer to a question brings the request back to the desk', async () => {
    const { id } = await report(cast, { email: 'asked-by-mail@reporter.example' })
    await cast.coordinator.must(askReporter, { id, version: 1, reason: 'Which of the three?' })
    const received = (await house.mail('asked-by-mail@reporter.example', (one) => one.text.includes('Which of the three?'))) as unknown as { messageId: string }
    // By the message it answers, with the tag of the address lost on the way.
    await outcome(() =>
      send({
        from: 'asked-by-mail@reporter.example',
        subject: 'Re: whatever',
        text: 'The left one.',
        inReplyTo: received.messageId,
        references: received.messageId,
      }),
    )
    const sheet = await requestInFull(cast.coordinator, id)
    expect(sheet.state).toBe('new')
    expect(sheet.timeline[0]).toMatchObject({ kind: 'request.answer', reason: 'The left one.' })
  })

  test('a second mail in the reporter’s own thread belongs to the first', async () => {
    const first = await outcome(() =>
      send({ subject: 'Pump is loud', text: 'Since today.', messageId: '<thread-1@reporter.example>', from: 'thread@reporter.example' }),
    )
    const second = await outcome(() =>
      send({
        subject: 'Re: Pump is loud',
        text: 'Louder now.',
        from: 'thread@reporter.example',
        references: '<thread-1@reporter.example>',
        inReplyTo: '<thread-1@reporter.example>',
      }),
    )
    expect(second).toMatchObject({ state: 'joined', request_id: first.request_id })
  })

  test('nobody joins a conversation by guessing its number, its message or somebody else’s thread', async () => {
    const { id } = await report(cast, { email: 'mine@reporter.example' })
    await outcome(() => send({ from: 'mine@reporter.example', subject: 'Own thread', text: 'x', messageId: '<mine-1@reporter.example>' }))
    const [sent] = await house.rows<{ id: number }>('SELECT id FROM mail WHERE request_id = ?', [id])
    const tries = [
      () => send({ from: 'thief@x.example', to: `desk-ske+r${id}.AAAAAAAAAAAAAAAAAAAAAA@skerry.example`, subject: 'Re: x', text: 'in?' }),
      () => send({ from: 'thief@x.example', subject: 'Re: x', text: 'in?', inReplyTo: `<mail-${sent!.id}.AAAAAAAAAAAAAAAAAAAAAA@evrix.example>` }),
      () => send({ from: 'thief@x.example', subject: 'Re: Own thread', text: 'in?', inReplyTo: '<mine-1@reporter.example>' }),
    ]
    for (const attempt of tries) expect((await outcome(attempt)).state).toBe('request')
    expect((await requestInFull(cast.coordinator, id)).conversation.rows).toEqual([])
  })
})

describe('mail that makes no request', () => {
  test('automatic replies and bounces are kept with the reason, and never answered', async () => {
    const before = await house.rows('SELECT id FROM mail')
    const machine = await outcome(() =>
      sendRaw('From: away@reporter.example\nSubject: Out of office\nAuto-Submitted: auto-replied\n\nI am away.', 'away@reporter.example'),
    )
    expect(machine).toMatchObject({ state: 'ignored' })
    expect(machine.reason).toContain('auto-replied')
    const bounce = await outcome(() => sendRaw('From: mailer-daemon@x.example\nSubject: Undelivered\n\nNo such box.', ''))
    expect(bounce.reason).toContain('bounce')
    expect(await house.rows('SELECT id FROM mail')).toHaveLength(before.length)
    const { rows } = await cast.coordinator.must(listKeptMail, {})
    expect(rows.slice(0, 2).map((row) => [row.state, row.subject])).toEqual([
      ['ignored', 'Undelivered'],
      ['ignored', 'Out of office'],
    ])
  })

  test('the desk can make a request of one that was left alone, once', async () => {
    const mail = await outcome(() =>
      sendRaw('From: list@reporter.example\nSubject: Leak in the tank hall\nPrecedence: bulk\n\nWater on the floor.', 'list@reporter.example'),
    )
    const made = await cast.coordinator.must(takeKeptMail, { id: mail.id })
    expect(await cast.coordinator.must(readRequest, { id: made.requestId })).toMatchObject({
      number: made.number,
      summary: 'Leak in the tank hall',
      channel: 'email',
    })
    expect((await cast.coordinator.call(takeKeptMail, { id: mail.id })).problem.reasons![0]!.code).toBe('taken_already')
  })

  test('one that is too large is answered with what to do, and its beginning is kept', async () => {
    const mail = await outcome(() =>
      send({
        from: 'large@reporter.example',
        subject: 'A film of it',
        text: 'See the film.',
        attachments: [{ filename: 'film.mp4', content: Buffer.alloc(20 * 1024 * 1024, 7) }],
      }),
    )
    expect(mail).toMatchObject({ state: 'refused', request_id: null })
    expect(mail.reason).toContain('larger than 25 MB')
    const answer = await house.mail('large@reporter.example')
    expect(answer.text).toContain('/c/SKE')
    expect(answer.subject).toBe('Not taken: A film of it')
  })

  test('our own acknowledgements never come back in as requests', async () => {
    const mail = await outcome(() => sendRaw(`From: ${DESK}\nSubject: Loop\n\nx`, DESK))
    expect(mail.state).toBe('ignored')
  })
})

describe('the conversation on the Sheet', () => {
  test('a note stays at the desk; a message is mailed and shown on the private page', async () => {
    const { id, token } = await report(cast, { email: 'talks@reporter.example' })
    await cast.coordinator.must(writeComment, { id, kind: 'note', text: 'This tenant always exaggerates.' })
    await cast.coordinator.must(writeComment, { id, kind: 'message', text: 'We come before noon.' })
    await house.mail('talks@reporter.example', (mail) => mail.text.includes('We come before noon.'))
    const page = await cast.anybody.call(trackRequest, { token })
    expect(page.body.messages.map((one) => [one.text, one.mine])).toEqual([['We come before noon.', false]])
    expect(page.text).not.toContain('exaggerates')
    expect(await house.rows("SELECT id FROM mail WHERE text LIKE '%exaggerates%'")).toEqual([])
    const after = await cast.anybody.must(writeAsReporter, { token, text: 'Thank you.' })
    expect(after.messages.at(-1)).toMatchObject({ text: 'Thank you.', mine: true })
    const { conversation } = await requestInFull(cast.coordinator, id)
    expect(conversation.rows.map((row) => [row.kind, row.fromReporter])).toEqual([
      ['note', false],
      ['message', false],
      ['message', true],
    ])
    expect(conversation.reaches).toEqual(['talks@reporter.example'])
  })

  test('who left no address cannot be written to, and the desk is told so', async () => {
    const { id } = await report(cast, { email: '' })
    const reply = await cast.coordinator.call(writeComment, { id, kind: 'message', text: 'Hello?' })
    expect(reply.problem.reasons).toMatchObject([{ code: 'no_address', field: 'text' }])
  })
})

describe('the words of mails', () => {
  let admin: Client
  beforeAll(async () => {
    admin = await new Client(server.url).signIn('wendeline.stroud')
  })

  test('a site’s own words are previewed with real data, used, and dropped again', async () => {
    const wording = { siteId: 1, occasion: 'received' as const, subject: 'Got it: {summary}', text: 'Dear {name},\nwe have {number}.\n{link}\n{site}' }
    const preview = await admin.must(previewWording, wording)
    expect(preview.text).toMatch(/we have R-\d{5}\./)
    expect(preview.text).not.toMatch(/\/t\/[A-Za-z0-9_-]{43}/)
    expect(preview.html).toContain('<p ')
    await admin.must(saveWording, wording)
    const { number } = await report(cast, { email: 'worded@reporter.example', name: 'Noor' })
    const mail = await house.mail('worded@reporter.example')
    expect(mail.subject).toBe('Got it: The left light over the sink is out')
    expect(mail.text).toContain(`Dear Noor,\nwe have ${number}.`)
    const [row] = await house.rows<{ html: string }>("SELECT html FROM mail WHERE `to` = 'worded@reporter.example'")
    expect(row!.html).toContain('<br>we have')
    await admin.must(dropWording, { siteId: 1, occasion: 'received' })
    expect((await admin.must(readIntakeSetup, {})).wordings.find((one) => one.siteId === 1 && one.occasion === 'received')!.own).toBe(false)
  })

  test('an unknown placeholder is refused at its field, and nothing is saved', async () => {
    const reply = await admin.call(saveWording, { siteId: 1, occasion: 'done', subject: '{nmber}', text: 'x {link}' })
    expect(reply.problem.reasons).toMatchObject([{ code: 'placeholder', field: 'subject' }])
    expect(await house.rows('SELECT * FROM mail_wording')).toEqual([])
  })
})

test('a mailed request goes on like any other once the desk has said where and what', async () => {
  const mail = await outcome(() => send({ subject: 'Tap drips', text: 'In the kitchenette.' }))
  const { id, version } = await requestOf(mail)
  expect((await cast.coordinator.call(acceptRequest, { id, version })).problem.reasons!.map((reason) => reason.field)).toContain('placeId')
  const sheet = await cast.coordinator.must(triageRequest, { id, version, placeId: 20, categoryId: 4, consequence: 'room', urgency: 'this_week', payerId: 3 })
  await cast.coordinator.must(acceptRequest, { id, version: sheet.version })
})

test('a mail program that holds its line open is told to come back when the server ends, which waits for nobody', async () => {
  const line = connect(house.inboundPort, '127.0.0.1')
  let heard = ''
  line.on('data', (chunk: Buffer) => (heard += chunk.toString()))
  await new Promise<void>((resolve) => line.once('data', () => resolve()))
  const left = new Promise<void>((resolve) => line.once('close', () => resolve()))
  await server.stop()
  await left
  expect(heard).toMatch(/^220 .*\r\n421 /)
  server = await house.start()
  expect((await outcome(() => send({ subject: 'After the pause', text: 'It is cold again.' }))).state).toBe('request')
})
