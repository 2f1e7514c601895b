import { request as httpRequest } from 'node:http'
import sharp from 'sharp'
import { editAsset } from '#contract/assets'
import { search } from '#contract/lists'
import { listOrders } from '#contract/orders'
import { keepCallPreset, readSelf } from '#contract/people'
import {
  askForMine,
  confirmFollow,
  enterCall,
  findCounterSpots,
  findSummaries,
  findTwins,
  followRequest,
  listRequests,
  readAround,
  readCaller,
  readCounter,
  readCounterSpot,
  readMine,
  readRequest,
  readTrackedFile,
  reportRequest,
  sayNotFixed,
  trackRequest,
  triageRequest,
  uploadCounterFile,
  uploadTrackedFile,
  writeAsReporter,
  writeComment,
} from '#contract/requests'
import { copySiteIntake, editSiteIntake, readIntakeSetup, saveCategory } from '#contract/setup'
import { USUAL_COUNTER_FIELDS } from '#core/requests'
import { accepted, castAt, Client, House, orderAt, report, requestInFull } from '../kit'
import type { Cast, Running } from '../kit'

/** The Counter and the call form, held against the rows behind them. */
let house: House
let server: Running
let cast: Cast
let admin: Client

beforeAll(async () => {
  house = await House.open('counter', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(() => house?.close())

const told = { site: 'SKE', placeId: 20, summary: 'The tap in the corner drips', description: 'The left one, since Sunday. I saw it.' }
const countOf = async (table: string) => (await house.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0]!.n
const blob = (content: Buffer | string, type = '') => new Blob([typeof content === 'string' ? content : new Uint8Array(content)], { type })
const tokenIn = (text: string, page: string) => new RegExp(`/${page}/([A-Za-z0-9_-]{43})`).exec(text)![1]!

describe('what a site asks', () => {
  test('a required field that is missing stands at its field and leaves no row; copied, it holds at the other site', async () => {
    const setup = await admin.must(readIntakeSetup, {})
    const [ske, mus] = ['SKE', 'MUS'].map((code) => setup.sites.find((site) => site.code === code)!)
    await admin.must(editSiteIntake, { id: ske!.id, fields: { ...USUAL_COUNTER_FIELDS, phone: 'required', wish: 'not_asked' } })
    const before = await countOf('request')
    const refused = await cast.anybody.call(reportRequest, told)
    expect([refused.status, refused.problem.reasons![0]!.field]).toEqual([422, 'phone'])
    expect(await countOf('request')).toBe(before)
    await cast.anybody.must(reportRequest, { ...told, phone: '+353 91 555 9999' })
    expect((await cast.anybody.must(readCounter, { site: 'SKE' })).fields.wish).toBe('not_asked')

    expect((await cast.anybody.must(readCounter, { site: 'MUS' })).fields).toEqual(USUAL_COUNTER_FIELDS)
    await admin.must(copySiteIntake, { fromId: ske!.id, toIds: [mus!.id] })
    expect((await cast.anybody.must(readCounter, { site: 'MUS' })).fields.phone).toBe('required')
    expect((await admin.call(copySiteIntake, { fromId: ske!.id, toIds: [ske!.id] })).problem.reasons![0]!.code).toBe('same_site')
    for (const site of [ske!, mus!]) await admin.must(editSiteIntake, { id: site.id, fields: USUAL_COUNTER_FIELDS })
  })

  test('a category asks its questions; an edit meanwhile breaks neither the form in hand nor the answers given', async () => {
    const counter = await cast.anybody.must(readCounter, { site: 'SKE' })
    const freezer = counter.categories.find((one) => one.name === 'Freezer')!
    expect(freezer.questions.map((one) => one.code)).toContain('shows')
    const asked = { ...told, categoryId: freezer.id, formId: freezer.formId }
    const refused = await cast.anybody.call(reportRequest, { ...asked, answers: { shows: 99 } })
    expect(refused.problem.reasons!.map((one) => one.field).sort()).toEqual(['answers.alarm', 'answers.shows'])

    const row = (await admin.must(readIntakeSetup, {})).categories.find((one) => one.id === freezer.id)!
    const { round: _, retired, hint, ...kept } = row
    const after = await admin.must(saveCategory, {
      ...kept,
      hint: hint ?? '',
      retired,
      questions: [{ code: 'colour', label: 'Which colour is its lamp?', kind: 'choice', options: ['red', 'green'], required: true }],
    })
    expect(after.categories.find((one) => one.id === freezer.id)!.round).toBe(row.round + 1)

    // The page was opened before the edit: its answers are checked by what it asked.
    const sent = await cast.anybody.must(reportRequest, { ...asked, answers: { shows: -61, alarm: 'no', since: 'today' } })
    const { rows } = await cast.coordinator.must(listRequests, { q: sent.number })
    const sheet = await cast.coordinator.must(readRequest, { id: rows[0]!.id })
    // “Since when” hangs on the alarm: it was not asked, so it is not kept.
    expect(sheet.answers).toEqual([
      { label: 'What temperature does it show?', answer: '-61 °C' },
      { label: 'Is the alarm on?', answer: 'No' },
    ])
    const other = counter.categories.find((one) => one.name === 'Leak')!
    expect((await cast.anybody.call(reportRequest, { ...asked, formId: other.formId, answers: {} })).problem.reasons![0]!.code).toBe('form_other')
    const fresh = (await cast.anybody.must(readCounter, { site: 'SKE' })).categories.find((one) => one.id === freezer.id)!
    expect(fresh.questions[0]!.label).toBe('Which colour is its lamp?')
    await admin.must(saveCategory, { ...kept, hint: hint ?? '', retired, questions: row.questions })
  })

  test('a question that hangs on a later one, or a tree of three levels, is refused', async () => {
    const { categories } = await admin.must(readIntakeSetup, {})
    const freezer = categories.find((one) => one.code === 'freezer')!
    const fresh = { parentId: freezer.id, code: 'ice', name: 'Ice machine', hint: '', tradeId: null, position: 5, retired: false, questions: [] }
    expect((await admin.call(saveCategory, fresh)).problem.reasons![0]!.field).toBe('parentId')
    const hangs = { ...fresh, parentId: null, questions: [{ code: 'a', label: 'A?', kind: 'text' as const, required: true, when: { code: 'b', is: 'yes' } }] }
    expect((await admin.call(saveCategory, hangs)).problem.reasons![0]!.field).toBe('questions.0')
    expect((await admin.must(readIntakeSetup, {})).categories).toHaveLength(categories.length)
  })
})

describe('where it is', () => {
  test('by code, name, tag or room, with a typing error, those near first', async () => {
    const find = async (q: string, near?: number) => (await cast.anybody.must(findCounterSpots, { site: 'SKE', q, near })).rows
    expect((await find('TID-104'))[0]!.name).toBe('Laboratory 2')
    expect((await find('labratory'))[0]!.name).toMatch(/laboratory/i)
    expect((await find('F-003'))[0]).toMatchObject({ code: 'F-003', assetId: expect.any(Number) as number })
    const far = (await find('washroom'))[0]!
    const [near] = await house.rows<{ id: number; path: string }>("SELECT id, path FROM place WHERE code LIKE 'KEL-1%' LIMIT 1")
    const first = (await find('washroom', near!.id))[0]!
    expect(first.within).toContain('Kelp House')
    expect(far.within).not.toContain('Kelp House')
    // A name that was changed is found with a typing error, too.
    const [asset] = await house.rows<{ id: number; version: number; tag: string }>(
      "SELECT id, version, tag FROM asset WHERE tag LIKE 'F-0%' AND tag <> 'F-003' AND site_id = 1 LIMIT 1",
    )
    expect(await find('quicksilvr')).toEqual([])
    await admin.must(editAsset, { id: asset!.id, version: asset!.version, name: 'Quicksilver bank' })
    expect((await find('quicksilvr')).map(({ code }) => code)).toEqual([asset!.tag])
  })

  test('a printed code fills in place and asset; one that is unknown says so', async () => {
    const spot = await cast.anybody.must(readCounterSpot, { site: 'SKE', place: 'TID-101', asset: 'F-003' })
    expect(spot).toMatchObject({ code: 'F-003', within: expect.stringContaining('Freezer bank 1') as string })
    expect((await cast.anybody.call(readCounterSpot, { site: 'SKE', place: 'NOPE-1' })).status).toBe(404)
  })
})

describe('files', () => {
  test('content decides: a page is a download, a photo is written anew without its position', async () => {
    const page = await cast.anybody.must(uploadCounterFile, { site: 'SKE', name: 'page.html' }, { file: blob('<script>alert(1)</script>', 'text/html') })
    expect(page).toMatchObject({ kind: 'document', name: 'page.html' })
    const taken = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#1F7A7A' } })
      .withExif({ IFD0: { Make: 'Northlight' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '53/1 16/1 0/1' } })
      .jpeg()
      .toBuffer()
    expect((await sharp(taken).metadata()).exif).toBeDefined()
    const photo = await cast.anybody.must(uploadCounterFile, { site: 'SKE', name: '../../left door.png' }, { file: blob(taken) })
    expect(photo).toMatchObject({ kind: 'picture', name: expect.stringMatching(/^left door/) as string })

    const sent = await report(cast, { fileClaims: [page.claim, photo.claim] })
    const { files } = await cast.anybody.must(trackRequest, { token: sent.token })
    const fetched = async (kind: string, small = '') => {
      const file = files.find((one) => one.kind === kind)!
      return fetch(`${server.url}${readTrackedFile.path.replace(':token', sent.token).replace(':fileId', String(file.id))}${small}`)
    }
    const document = await fetched('document')
    expect(document.headers.get('content-disposition')).toMatch(/^attachment/)
    expect(document.headers.get('content-type')).toBe('application/octet-stream')
    expect(document.headers.get('x-content-type-options')).toBe('nosniff')
    const kept = Buffer.from(await (await fetched('picture')).arrayBuffer())
    const meta = await sharp(kept).metadata()
    expect([meta.format, meta.exif]).toEqual(['jpeg', undefined])
    const thumb = Buffer.from(await (await fetched('picture', '?small=true')).arrayBuffer())
    expect((await sharp(thumb).metadata()).width).toBeLessThan(meta.width)
  })

  test('ten files and no more; a claim is used once', async () => {
    const claims = []
    for (let n = 0; n < 11; n++)
      claims.push((await cast.anybody.must(uploadCounterFile, { site: 'SKE', name: `list-${n}.txt` }, { file: blob(`line ${n}`) })).claim)
    const before = await countOf('request')
    expect((await cast.anybody.call(reportRequest, { ...told, fileClaims: claims })).problem.reasons![0]!.field).toBe('fileClaims')
    expect(await countOf('request')).toBe(before)
    const { token } = await report(cast, { fileClaims: claims.slice(0, 10) })
    expect((await cast.anybody.must(trackRequest, { token })).files).toHaveLength(10)
    const again = await cast.anybody.call(reportRequest, { ...told, fileClaims: claims.slice(0, 1) })
    expect(again.status).toBe(422)
  })
})

describe('what is known here', () => {
  test('an unread request shows what it is about, a read one the desk’s words; never who', async () => {
    const [spot] = (await cast.anybody.must(findCounterSpots, { site: 'SKE', q: 'KEL-104' })).rows
    const sent = await report(cast, { placeId: spot!.placeId, summary: 'My lover’s letters fell behind the radiator', name: 'Secret Person' })
    const around = () => cast.anybody.must(readAround, { site: 'SKE', placeId: spot!.placeId })
    const unread = (await around()).requests.find((one) => one.id === sent.id)!
    // What history says such words are about, or that nobody has said yet: never the words themselves.
    expect(unread.summary).toMatch(/, it seems$|^A trouble the desk has not sorted yet$/)
    expect(unread.summary).not.toContain('radiator')
    const { version } = await cast.coordinator.must(readRequest, { id: sent.id })
    await cast.coordinator.must(triageRequest, { id: sent.id, version, summary: 'Something fell behind the radiator', categoryId: 2 })
    await house.rows('UPDATE request SET taken_up_at = received_at WHERE id = ?', [sent.id])
    expect((await around()).requests.find((one) => one.id === sent.id)!.summary).toBe('Something fell behind the radiator')
    expect(JSON.stringify(await around())).not.toMatch(/Secret|lover/)
  })

  test('words nobody has ever used are of the thing they were told of, or of a trouble not sorted yet', async () => {
    const [asset] = await house.rows<{ id: number; name: string; place: number }>('SELECT id, name, place_id AS place FROM asset WHERE site_id = 1 LIMIT 1')
    const on = await report(cast, { placeId: asset!.place, assetId: asset!.id, summary: 'Xyqqo vuzzt', description: 'Wrokk plimf' })
    const off = await report(cast, { placeId: asset!.place, summary: 'Xyqqo vuzzt', description: 'Wrokk plimf' })
    const { requests } = await cast.anybody.must(readAround, { site: 'SKE', placeId: asset!.place })
    expect(requests.find((one) => one.id === on.id)!.summary).toBe(`Something about: ${asset!.name}`)
    expect(requests.find((one) => one.id === off.id)!.summary).toBe('A trouble the desk has not sorted yet')
  })

  test('“me too” hears by mail on a link of their own, which shows nothing that was sent; pressed twice it counts once', async () => {
    const sent = await report(cast, { summary: 'The whole floor is cold', email: 'first@reporter.example' })
    for (let n = 0; n < 2; n++) await cast.anybody.must(followRequest, { site: 'SKE', id: sent.id, email: 'Second@Reporter.example', name: 'Second' })
    expect((await house.rows('SELECT id FROM request_follower WHERE request_id = ?', [sent.id])).length).toBe(1)
    const token = tokenIn((await house.mail('second@reporter.example')).text, 't')
    expect((await cast.coordinator.must(readRequest, { id: sent.id })).followers).toEqual([])
    const seen = await cast.anybody.must(confirmFollow, { token })
    expect(seen).toMatchObject({ following: true, description: null, files: [], answers: [], mayWrite: false, maySayNotFixed: false })
    expect((await cast.anybody.call(writeAsReporter, { token, text: 'Let me in' })).status).toBeGreaterThanOrEqual(400)
    expect((await cast.coordinator.must(readRequest, { id: sent.id })).followers).toEqual([{ name: 'Second', email: 'second@reporter.example' }])

    // What the desk says to the reporter is between the two.
    const { reaches } = await cast.coordinator.must(writeComment, { id: sent.id, kind: 'message', text: 'The boiler is looked at today.' })
    expect(reaches).toEqual(['first@reporter.example'])
    expect((await cast.anybody.must(trackRequest, { token })).messages).toEqual([])
  })

  test('everything of one mail address by a link sent there; an address that sent nothing gets the same answer', async () => {
    const mine = 'collector@reporter.example'
    for (const summary of ['One thing', 'Another thing']) await report(cast, { email: mine, summary })
    expect(await cast.anybody.must(askForMine, { site: 'SKE', email: mine.toUpperCase() })).toEqual(
      await cast.anybody.must(askForMine, { site: 'SKE', email: 'nobody-at-all@reporter.example' }),
    )
    const token = tokenIn((await house.mail(mine, (mail) => mail.subject.startsWith('What you have sent'))).text, 'mine')
    const { rows, counts } = await cast.anybody.must(readMine, { token })
    expect(rows.map((row) => row.summary).sort()).toEqual(['Another thing', 'One thing'])
    expect(counts).toEqual([{ step: 'received', count: 2 }])
    expect((await house.mail('nobody-at-all@reporter.example')).text).toContain('Nothing was')
    expect(await house.rows('SELECT id FROM reporter_link WHERE token_hash = ?', [token])).toEqual([])
    await house.rows("UPDATE reporter_link SET expires_at = '2026-01-01' WHERE email = ?", [mine])
    expect((await cast.anybody.call(readMine, { token })).status).toBe(404)
  })

  test('“not fixed” brings it back as a new request that shows what it repeats, once it was said to be done', async () => {
    const early = await report(cast)
    expect((await cast.anybody.call(sayNotFixed, { token: early.token, text: 'Still drips' })).problem.reasons![0]!.code).toBe('not_done')
    const { requestId } = await orderAt(cast, 'done')
    const [row] = await house.rows<{ number: string }>('SELECT number FROM request WHERE id = ?', [requestId])
    const { token } = await linkOf(requestId)
    const seen = await cast.anybody.must(sayNotFixed, { token, text: 'It still drips, less than before.' })
    expect(seen.steps.at(-1)!.sentence).toBe('You said that it is not fixed.')
    const { rows } = await cast.coordinator.must(listRequests, { q: 'Not fixed', state: 'new' })
    const again = await cast.coordinator.must(readRequest, { id: rows.at(-1)!.id })
    expect(again.repeats).toEqual({ id: requestId, number: row!.number })
    expect(again.description).toBe('It still drips, less than before.')
  })

  /** A new private link, as only its reporter has it. */
  async function linkOf(requestId: number): Promise<{ token: string }> {
    const { createHash } = await import('node:crypto')
    const token = 'n'.repeat(43)
    await house.rows('UPDATE request SET link_hash = ? WHERE id = ?', [createHash('sha256').update(token).digest('hex'), requestId])
    return { token }
  }
})

test('a photo sent later belongs to the message; its claim is used once', async () => {
  const [one, other] = [await report(cast), await report(cast)]
  const kept = await cast.anybody.must(uploadTrackedFile, { token: one.token, name: 'now.txt' }, { file: blob('it is worse now') })
  const seen = await cast.anybody.must(writeAsReporter, { token: one.token, text: 'It got worse.', fileClaims: [kept.claim] })
  expect(seen.files.map((file) => file.name)).toEqual(['now.txt'])
  expect((await cast.anybody.call(writeAsReporter, { token: other.token, text: 'Mine?', fileClaims: [kept.claim] })).status).toBe(422)
  const sheet = await requestInFull(cast.coordinator, one.id)
  expect(sheet.conversation.rows.at(-1)).toMatchObject({ fromReporter: true, text: 'It got worse.', files: [{ name: 'now.txt' }] })
})

describe('calls', () => {
  test('a caller brings place, payer, what they wait for and their last jobs', async () => {
    const [person] = await house.rows<{ id: number; name: string; place_id: number }>(
      'SELECT p.id, p.name, p.place_id FROM person p JOIN request r ON r.reporter_id = p.id JOIN request_order ro ON ro.request_id = r.id JOIN work_order o ON o.id = ro.order_id WHERE o.finished_at IS NOT NULL AND p.place_id IS NOT NULL AND p.payer_id IS NOT NULL LIMIT 1',
    )
    const caller = await cast.coordinator.must(readCaller, { id: person!.id })
    expect(caller).toMatchObject({ name: person!.name, place: { id: person!.place_id } })
    const done = await house.rows<{ number: string }>(
      'SELECT o.number FROM work_order o JOIN request_order ro ON ro.order_id = o.id JOIN request r ON r.id = ro.request_id WHERE r.reporter_id = ? AND o.finished_at IS NOT NULL ORDER BY o.finished_at DESC LIMIT 3',
      [person!.id],
    )
    expect(caller.lastJobs.map((job) => job.number)).toEqual(done.map((row) => row.number))
    for (const one of caller.open) expect(one.state).not.toMatch(/done|checked|closed|cancelled|declined/)
  })

  test('likely duplicates at the place come first, and one key joins the call to one', async () => {
    const first = await report(cast, { placeId: 25, summary: 'Radiator by the window is cold' })
    await report(cast, { placeId: 25, summary: 'Lamp over the door is out' })
    const { rows } = await cast.coordinator.must(findTwins, { placeId: 25, words: 'cold radiator' })
    expect(rows[0]!.id).toBe(first.id)
    const entry = {
      siteId: 1,
      placeId: 25,
      summary: 'Radiator is cold',
      description: 'The one by the window.',
      email: 'late@reporter.example',
      name: 'Late Caller',
    }
    const call = await cast.coordinator.must(enterCall, { ...entry, joinToId: first.id })
    expect((await cast.coordinator.must(readRequest, { id: call.id })).joinedTo).toMatchObject({ id: first.id })
    const before = await countOf('request')
    expect((await cast.coordinator.call(enterCall, { ...entry, joinToId: call.id })).problem.reasons![0]!.field).toBe('toId')
    expect(await countOf('request')).toBe(before)
  })

  test('one’s own start of the form is kept for oneself; summaries written before are offered; references are found', async () => {
    await cast.coordinator.must(keepCallPreset, { channel: 'visit', description: 'At the window.' })
    expect((await cast.coordinator.must(readSelf, {})).callPreset).toEqual({ channel: 'visit', description: 'At the window.' })
    expect((await (await new Client(server.url).signIn('tobias.achterberg')).must(readSelf, {})).callPreset).toEqual({})
    const { rows } = await cast.coordinator.must(findSummaries, { q: 'drain' })
    expect(rows[0]).toBe('Drain is blocked')
    const call = await cast.coordinator.must(enterCall, {
      siteId: 1,
      placeId: 25,
      summary: 'Vat is loud',
      description: 'Hums',
      outsideReference: 'INS-2026/77',
    })
    expect((await cast.coordinator.must(listRequests, { q: 'INS-2026/77' })).rows.map((row) => row.id)).toEqual([call.id])
    // The order it becomes carries it along, and is found by it too.
    const orderId = await accepted(cast, call.id)
    expect((await cast.coordinator.must(listOrders, { q: 'INS-2026' })).rows.map((row) => row.id)).toEqual([orderId])
    const found = (await cast.coordinator.must(search, { q: 'INS-2026/77' })).rows
    expect(found.map((row) => [row.type, row.id])).toEqual([
      ['order', orderId],
      ['request', call.id],
    ])
  })
})

describe('under abuse', () => {
  test('a flood from one address is held and does not stop others', async () => {
    const strict = await house.start({ EVRIX_PUBLIC_READS_PER_MINUTE: '20', EVRIX_INBOUND_PORT: '' })
    const from = (address: string) =>
      new Promise<number>((resolve, reject) =>
        httpRequest(`${strict.url}/api/counter/SKE/spots?q=tap`, { localAddress: address }, (reply) => {
          reply.resume()
          resolve(reply.statusCode!)
        })
          .on('error', reject)
          .end(),
      )
    const flood = await Promise.all(Array.from({ length: 60 }, () => from('127.0.0.2')))
    expect(flood.filter((status) => status === 429)).toHaveLength(40)
    expect(await from('127.0.0.3')).toBe(200)
    await strict.stop()
  })

  test('public answers hold the keys a stranger may know and no others', async () => {
    const sent = await report(cast, { placeId: 25, summary: 'Blind is stuck', email: 'keys@reporter.example' })
    await cast.coordinator.must(writeComment, { id: sent.id, kind: 'note', text: 'Internal: ask the joiner.' })
    await cast.anybody.must(askForMine, { site: 'SKE', email: 'keys@reporter.example' })
    const token = tokenIn((await house.mail('keys@reporter.example', (mail) => mail.subject.startsWith('What you have sent'))).text, 'mine')
    const answers = {
      counter: await cast.anybody.must(readCounter, { site: 'SKE' }),
      spots: await cast.anybody.must(findCounterSpots, { site: 'SKE', q: 'freezer' }),
      around: await cast.anybody.must(readAround, { site: 'SKE', placeId: 25, words: 'freezer alarm' }),
      track: await cast.anybody.must(trackRequest, { token: sent.token }),
      mine: await cast.anybody.must(readMine, { token }),
    }
    expect(Object.fromEntries(Object.entries(answers).map(([name, answer]) => [name, [...keysOf(answer)].sort()]))).toEqual({
      counter: [
        'categories',
        'category',
        'asset',
        'code',
        'deskEmail',
        'deskPhone',
        'email',
        'fields',
        'formId',
        'hint',
        'id',
        'is',
        'kind',
        'label',
        'least',
        'most',
        'name',
        'options',
        'parentId',
        'phone',
        'photo',
        'questions',
        'required',
        'unit',
        'when',
        'wish',
      ].sort(),
      spots: ['assetId', 'code', 'name', 'placeId', 'rows', 'within'],
      around: ['articles', 'body', 'bulletins', 'documents', 'id', 'place', 'progress', 'requests', 'sentence', 'since', 'step', 'summary', 'title'],
      track: [
        'answers',
        'at',
        'code',
        'description',
        'deskEmail',
        'deskPhone',
        'files',
        'following',
        'mayAnswer',
        'maySayFixed',
        'maySayNotFixed',
        'mayWrite',
        'messages',
        'name',
        'number',
        'place',
        'progress',
        'receivedAt',
        'sentence',
        'site',
        'step',
        'steps',
        'summary',
        'toConfirm',
        'toldAgain',
      ],
      mine: [
        'code',
        'count',
        'counts',
        'deskEmail',
        'deskPhone',
        'email',
        'link',
        'name',
        'number',
        'place',
        'progress',
        'receivedAt',
        'rows',
        'sentence',
        'site',
        'step',
        'summary',
      ],
    })
    expect(JSON.stringify(answers)).not.toContain('joiner')
  })

  function keysOf(value: unknown, into = new Set<string>()): Set<string> {
    if (Array.isArray(value)) value.forEach((one) => keysOf(one, into))
    else if (value && typeof value === 'object')
      for (const [key, one] of Object.entries(value)) {
        into.add(key)
        keysOf(one, into)
      }
    return into
  }
})
