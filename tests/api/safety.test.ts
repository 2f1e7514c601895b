import { dispatchOrder } from '#contract/dispatch'
import { listJobs, readJob, switchStint } from '#contract/field'
import { editOrder, editTarget, listOrders, postOrder, readAttachment, readOrder, readPromises, submitOrder } from '#contract/orders'
import { signIn } from '#contract/people'
import { reportRequest, uploadCounterFile, readTrackedFile, trackRequest } from '#contract/requests'
import { search } from '#contract/lists'
import { editNumbering, readHealth, readNumbering, readOpenApi } from '#contract/setup'
import { contract } from '#contract'
import sharp from 'sharp'
import { castAt, Client, dispatched, House, orderAt, report, version } from '../kit'
import type { Cast, Running } from '../kit'
import { mustBeAsDescribed } from '../kit/described'

let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('safety')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const count = async (table: string) => (await house.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0]!.n
const good = { site: 'SKE', placeId: 20, summary: 'Tap drips', description: 'The right one.' }

describe('the same thing sent twice', () => {
  test('gives the same answer and one row', async () => {
    const before = await count('request')
    const [first, second] = await Promise.all([
      cast.anybody.call(reportRequest, good, { key: 'a'.repeat(32) }),
      cast.anybody.call(reportRequest, good, { key: 'a'.repeat(32) }),
    ])
    expect(first.status).toBe(200)
    expect(second.body).toEqual(first.body)
    expect(await count('request')).toBe(before + 1)
  })

  test('a key used for something else is refused; a POST without a key too', async () => {
    const reused = await cast.anybody.call(reportRequest, { ...good, summary: 'Another' }, { key: 'a'.repeat(32) })
    expect(reused.status).toBe(422)
    const bare = await cast.anybody.call(reportRequest, good, { headers: { 'Idempotency-Key': '' } })
    expect(bare.problem.reasons![0]!.field).toBe('Idempotency-Key')
  })

  test('a refused try leaves the key free for the mended one', async () => {
    const key = 'b'.repeat(32)
    expect((await cast.anybody.call(reportRequest, { ...good, placeId: 999_999 }, { key })).status).toBe(422)
    expect((await cast.anybody.call(reportRequest, good, { key })).status).toBe(200)
  })

  test('posting twice at once charges once', async () => {
    const { id } = await orderAt(cast, 'checked')
    const at = { id, version: await version(cast, id) }
    const replies = await Promise.all([1, 2, 3].map(() => cast.clerk.call(postOrder, at)))
    expect(replies.map((reply) => reply.status).sort()).toEqual([200, 409, 409])
    expect(await house.rows('SELECT COUNT(*) AS n FROM posting WHERE order_id = ?', [id])).toEqual([{ n: 1 }])
  })
})

test('a stale edit gets both values and changes nothing', async () => {
  const { id } = await orderAt(cast, 'draft')
  const stale = await version(cast, id)
  await cast.coordinator.must(editOrder, { id, version: stale, summary: 'Theirs' })
  const reply = await cast.coordinator.call(editOrder, { id, version: stale, summary: 'Yours' })
  expect(reply.status).toBe(409)
  expect(reply.problem).toMatchObject({ version: stale + 1, conflict: [{ field: 'summary', theirs: 'Theirs', yours: 'Yours' }] })
  expect((await cast.coordinator.must(readOrder, { id })).summary).toBe('Theirs')
})

describe('before approval', () => {
  test('no technician sees an order by any route, though a visit was forced onto it', async () => {
    const { id } = await orderAt(cast, 'to_approve')
    expect(
      (
        await cast.coordinator.call(dispatchOrder, {
          id,
          version: await version(cast, id),
          technicianIds: [1],
          start: '2026-11-23T12:00:00Z',
          end: '2026-11-23T13:00:00Z',
        })
      ).status,
    ).toBe(422)
    // Even a row that should not be there opens nothing.
    await house.rows(
      "INSERT INTO visit (order_id, technician_id, kind, state, planned_start, planned_end) VALUES (?, 1, 'first', 'planned', '2026-11-23 12:00:00', '2026-11-23 13:00:00')",
      [id],
    )
    const [visit] = await house.rows<{ id: number }>('SELECT id FROM visit WHERE order_id = ?', [id])
    expect((await cast.technician.must(listJobs, {})).rows.some((job) => job.visitId === visit!.id)).toBe(false)
    expect((await cast.technician.call(readJob, { visitId: visit!.id })).status).toBe(404)
    expect((await cast.technician.call(switchStint, { visitId: visit!.id, kind: 'work' })).status).toBe(404)
    expect((await cast.technician.call(readOrder, { id })).status).toBe(403)
    expect((await cast.technician.call(listOrders, {})).status).toBe(403)
  })

  test('one technician cannot open another’s job, nor its pictures', async () => {
    const { id } = await orderAt(cast, 'ready')
    const visitId = await dispatched(cast, id, { technicianIds: [2] })
    expect((await cast.technician.call(readJob, { visitId })).status).toBe(404)
    const [file] = await house.rows<{ id: number }>('SELECT id FROM attachment WHERE order_id = ? LIMIT 1', [id])
    expect(file).toBeUndefined()
    await house.rows("INSERT INTO attachment (site_id, order_id, name, mime, bytes, content, at) VALUES (1, ?, 'p.jpg', 'image/jpeg', 1, 'x', '2026-11-23')", [
      id,
    ])
    const [kept] = await house.rows<{ id: number }>('SELECT id FROM attachment WHERE order_id = ?', [id])
    expect((await cast.technician.call(readAttachment, { id: kept!.id })).status).toBe(404)
    expect((await cast.coordinator.call(readAttachment, { id: kept!.id })).status).toBe(200)
  })
})

test('a reporter’s link opens their request and nothing else', async () => {
  const mine = await report(cast)
  const photo = await cast.anybody.must(uploadCounterFile, { site: 'SKE' }, { file: await pixel() })
  const other = await report(cast, { fileClaims: [photo.claim] })
  const [file] = await house.rows<{ id: number }>('SELECT id FROM attachment WHERE request_id = ?', [other.id])
  expect((await cast.anybody.call(readTrackedFile, { token: other.token, fileId: file!.id })).status).toBe(200)
  expect((await cast.anybody.call(readTrackedFile, { token: mine.token, fileId: file!.id })).status).toBe(404)
  expect((await cast.anybody.call(reportRequest, { ...good, fileClaims: [photo.claim] })).problem.reasons![0]!.code).toBe('file_gone')
  expect((await cast.anybody.call(trackRequest, { token: mine.token.slice(1) + 'A' })).status).toBe(404)
})

describe('bad input leaves no row and names its field', () => {
  test.each([
    ['empty', {}, ['description', 'placeId', 'summary']],
    ['blank words', { ...good, summary: '   ', description: '' }, ['description', 'summary']],
    ['too long', { ...good, summary: 'x'.repeat(141) }, ['summary']],
    ['wrong type', { ...good, placeId: 'Tidehall' }, ['placeId']],
    ['unknown id', { ...good, placeId: 999_999 }, ['placeId']],
    ['a place of another site', { ...good, placeId: 240 }, ['placeId']],
    ['no mail address', { ...good, email: 'not one' }, ['email']],
    ['a field nobody asked for', { ...good, priority: 'emergency' }, ['priority']],
    ['a made-up photo', { ...good, fileClaims: ['x'.repeat(43)] }, ['fileClaims']],
  ])('%s', async (_name, input, fields) => {
    const [place] = await house.rows<{ id: number }>("SELECT id FROM place WHERE code = 'HAT-01'")
    const sent = 'placeId' in input && input.placeId === 240 ? { ...input, placeId: place!.id } : input
    const [requests, events, keys] = [await count('request'), await count('event'), await count('idempotency_key')]
    const reply = await cast.anybody.call(reportRequest, { site: 'SKE', ...sent })
    expect(reply.status).toBeGreaterThanOrEqual(400)
    expect(reply.status).toBeLessThan(500)
    expect(reply.headers.get('content-type')).toContain('application/problem+json')
    expect([...new Set(reply.problem.reasons!.map((reason) => reason.field))].sort()).toEqual(fields)
    expect([await count('request'), await count('event'), await count('idempotency_key')]).toEqual([requests, events, keys])
  })

  test('not JSON, or far too much of it', async () => {
    expect((await cast.anybody.call(reportRequest, { site: 'SKE' }, { raw: '{"summary": ' })).problem.reasons![0]!.field).toBe('body')
    const huge = await cast.anybody.call(reportRequest, { ...good, description: 'x'.repeat(400_000) })
    expect([huge.status, huge.problem.reasons![0]!.field]).toEqual([413, 'body'])
  })

  test('script in text is kept as text and served as text', async () => {
    const script = '<script>alert(1)</script> & "quotes"'
    const sent = await report(cast, { summary: script })
    const page = await cast.anybody.call(trackRequest, { token: sent.token })
    expect(page.body.summary).toBe(script)
    expect(page.headers.get('content-type')).toContain('application/json')
    const html = await fetch(server.url)
    const policy = html.headers.get('content-security-policy')!
    expect(policy).toContain("script-src 'self'")
    expect(policy).not.toContain('unsafe')
    expect(await html.text()).toContain('csp-nonce')
  })

  test.each([
    ['text', new Blob(['this is no picture'])],
    ['a broken JPEG', new Blob([new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3])])],
    ['a page that runs script', new Blob(['<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'], { type: 'image/svg+xml' })],
    ['nothing', undefined],
  ])('a file that claims to be a photo and is %s', async (_name, file) => {
    const before = await count('attachment')
    const reply = await cast.anybody.call(uploadCounterFile, { site: 'SKE' }, { file })
    expect(reply.status).toBeGreaterThanOrEqual(400)
    expect(reply.status).toBeLessThan(500)
    expect(reply.problem.reasons![0]!.field).toBe('file')
    expect(await count('attachment')).toBe(before)
  })

  test('a file over 15 MB', async () => {
    const reply = await cast.anybody.call(uploadCounterFile, { site: 'SKE' }, { file: new Blob([new Uint8Array(15 * 1024 * 1024 + 1)]) })
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([413, 'file'])
  })

  test('a page that was never offered', async () => {
    expect((await cast.coordinator.call(listOrders, { after: 'bm90IGEgcGFnZQ' })).problem.reasons![0]!.field).toBe('after')
  })
})

describe('sessions', () => {
  test('the cookie is out of reach of scripts and of other sites', async () => {
    const reply = await new Client(server.url).call(signIn, { email: 'maren.quill@skerry.example', password: 'slack-tide-42' })
    expect(reply.headers.get('set-cookie')).toMatch(/HttpOnly/)
    expect(reply.headers.get('set-cookie')).toMatch(/SameSite=Lax/)
    expect(reply.text).not.toContain('argon2')
  })

  test('a change sent by another site’s page is refused', async () => {
    for (const headers of [{ Origin: 'https://elsewhere.example' }, { 'Sec-Fetch-Site': 'cross-site' }, { Origin: 'null' }]) {
      const reply = await cast.coordinator.call(submitOrder, { id: 1, version: 1 }, { headers: headers as unknown as Record<string, string> })
      expect(reply.status).toBe(403)
    }
  })

  test('wrong passwords slow the next try of that address from there, known or unknown alike, and never shut the owner out', async () => {
    const person = 'yusuf.adeyemi-rourke@skerry.example'
    const tried = async (email: string, password = 'wrong') => {
      const began = performance.now()
      const reply = await new Client(server.url).call(signIn, { email, password })
      return { status: reply.status, text: reply.text, ms: performance.now() - began }
    }
    const series = async (email: string) => {
      const replies = []
      for (let n = 0; n < 5; n++) replies.push(await tried(email))
      return replies
    }
    const [known, unknown] = [await series(person), await series('nobody-at-all@skerry.example')]
    expect(known.map((one) => one.status)).toEqual([401, 401, 401, 401, 401])
    expect(unknown.map(({ status, text }) => ({ status, text }))).toEqual(known.map(({ status, text }) => ({ status, text })))
    // The later tries waited, each longer, and the right password is still taken, after its turn.
    for (const replies of [known, unknown]) expect(replies[4]!.ms).toBeGreaterThan(replies[0]!.ms + 400)
    expect((await tried(person, 'slack-tide-42')).status).toBe(200)
    expect(await house.rows('SELECT id FROM sign_in_try')).toHaveLength(1)
  })

  test('thirty guesses at once are counted one by one; somebody from elsewhere signs in meanwhile', async () => {
    const behind = await house.start({ EVRIX_TRUSTED_PROXIES: 'loopback' })
    const from = (source: string, password: string) =>
      new Client(behind.url).call(signIn, { email: 'petra.lindqvist@skerry.example', password }, { headers: { 'X-Forwarded-For': source } })
    const began = performance.now()
    const guesses = Array.from({ length: 30 }, () => from('203.0.113.7', 'wrong').then((reply) => ({ status: reply.status, ms: performance.now() - began })))
    const owner = await from('198.51.100.20', 'slack-tide-42')
    expect(owner.status).toBe(200)
    const replies = await Promise.all(guesses)
    const looked = replies.filter((reply) => reply.status === 401)
    expect(looked.length).toBeLessThan(10)
    expect(replies.every((reply) => reply.status === 401 || reply.status === 429)).toBe(true)
    // No more than those that are free are looked at within the first moment.
    expect(looked.filter((reply) => reply.ms < 450).length).toBeLessThanOrEqual(4)
    await behind.stop()
  })

  test('behind a proxy callers are told apart by its word, and cookies travel encrypted when people do', async () => {
    const strict = { EVRIX_PUBLIC_READS_PER_MINUTE: '5' }
    const asked = (url: string, source: string) =>
      new Client(url).call(contract.findCounterSpots!, { site: 'SKE', q: 'tap' }, { headers: { 'X-Forwarded-For': source } })
    const trusting = await house.start({ ...strict, EVRIX_TRUSTED_PROXIES: '127.0.0.1', EVRIX_PUBLIC_URL: 'https://help.skerry.example/' })
    for (let n = 0; n < 8; n++) expect((await asked(trusting.url, `203.0.113.${n}`)).status).toBe(200)
    const reply = await new Client(trusting.url).call(signIn, { email: 'petra.lindqvist@skerry.example', password: 'slack-tide-42' })
    expect(reply.headers.get('set-cookie')).toMatch(/HttpOnly; Secure; SameSite=Lax$/)
    const page = { Origin: 'https://help.skerry.example' } as Record<string, string>
    expect((await new Client(trusting.url).call(contract.askForMine!, { site: 'SKE', email: 'x@reporter.example' }, { headers: page })).status).toBe(200)
    await trusting.stop()
    // Without trust, what a caller says of itself counts for nothing.
    const alone = await house.start(strict)
    const statuses = []
    for (let n = 0; n < 8; n++) statuses.push((await asked(alone.url, `203.0.113.${n}`)).status)
    expect(statuses).toContain(429)
    expect(
      (await new Client(alone.url).call(signIn, { email: 'petra.lindqvist@skerry.example', password: 'slack-tide-42' })).headers.get('set-cookie'),
    ).not.toContain('Secure')
    await alone.stop()
  })

  test('it listens where HOST says, and nowhere else; sending has a limit of its own beside reading', async () => {
    const there = await house.start({ HOST: '127.0.0.2', EVRIX_PUBLIC_PER_MINUTE: '2' })
    const { port } = new URL(there.url)
    const at = `http://127.0.0.2:${port}`
    expect((await new Client(at).must(readHealth, {})).state).toBe('in order')
    await expect(fetch(`http://127.0.0.1:${port}/api/health`)).rejects.toThrow()
    const client = new Client(at)
    const sent = []
    for (let n = 0; n < 3; n++) sent.push((await client.call(contract.askForMine!, { site: 'SKE', email: `x${n}@reporter.example` })).status)
    expect(sent).toEqual([200, 200, 429])
    expect((await client.call(contract.findCounterSpots!, { site: 'SKE', q: 'tap' })).status).toBe(200)
    await there.stop()
  })

  test('logins and public endpoints have a limit for each address', async () => {
    const strict = await house.start({ EVRIX_PUBLIC_READS_PER_MINUTE: '5', EVRIX_LOGINS_PER_MINUTE: '3' })
    const client = new Client(strict.url)
    const places = contract.findCounterSpots!
    const statuses = []
    for (let n = 0; n < 7; n++) statuses.push((await client.call(places, { site: 'SKE', q: 'tap' })).status)
    expect(statuses.filter((status) => status === 429)).toHaveLength(2)
    const logins = []
    for (let n = 0; n < 5; n++) logins.push((await client.call(signIn, { email: 'nobody@skerry.example', password: 'x' })).status)
    expect(logins).toEqual([401, 401, 401, 429, 429])
    await strict.stop()
  })
})

describe('setup', () => {
  test('a changed target holds for the next promise; numbers never go back', async () => {
    const admin = await new Client(server.url).signIn('wendeline.stroud')
    const { targets } = await admin.must(readPromises, {})
    const { numberings } = await admin.must(readNumbering, {})
    const routine = targets.find((rule) => rule.priority === 'routine' && rule.siteCode === 'SKE')!
    await admin.must(editTarget, { id: routine.id, clock: 'continuous', responseMinutes: 10, completionMinutes: 100 })
    const { id } = await orderAt(cast, 'draft')
    const { target } = await cast.coordinator.must(readOrder, { id })
    expect(new Date(target.completionDueAt).getTime() - new Date(target.startAt).getTime()).toBe(100 * 60_000)
    const series = numberings.find((row) => row.series === 'order')!
    expect((await admin.call(editNumbering, { siteId: series.siteId, series: 'order', next: series.next - 1 })).problem.reasons![0]!.field).toBe('next')
    await admin.must(editNumbering, { siteId: series.siteId, series: 'order', next: 50_000 })
    const { id: after } = await orderAt(cast, 'draft')
    expect((await cast.coordinator.must(readOrder, { id: after })).number).toBe('W-50000')
    const change = { siteId: series.siteId, series: 'order' as const }
    const asked = (more: object) => admin.call(editNumbering, { ...change, ...more })
    const taken = numberings.find((row) => row.series === 'request' && row.siteCode === 'SKE')!
    expect((await asked({ prefix: taken.prefix })).problem.reasons).toEqual([expect.objectContaining({ code: 'prefix_taken', field: 'prefix' })])
    expect((await asked({ prefix: 'W1' })).problem.reasons![0]!.sentence).toBe('Write one to 6 letters.')
    expect([(await asked({ digits: 10 })).status, (await asked({})).status]).toEqual([400, 400])
    await admin.must(editNumbering, { ...change, prefix: 'job', next: 812, digits: 4 })
    const { id: moved } = await orderAt(cast, 'draft')
    expect((await cast.coordinator.must(readOrder, { id: moved })).number).toBe('JOB-0812')
    for (const q of ['job812', 'JOB 0812', 'job-00812', '812'])
      expect([q, (await cast.coordinator.must(search, { q })).rows.some((row) => row.title.startsWith('JOB-0812') || row.id === moved)]).toEqual([q, true])
    // Back to letters that were used: on from where they ended, not before.
    expect((await asked({ prefix: 'W', next: 900 })).problem.reasons).toEqual([expect.objectContaining({ code: 'number_used', field: 'next' })])
    await admin.must(editNumbering, { ...change, prefix: 'W', next: 50_001, digits: 5 })
    const early = await admin.call(editTarget, { id: routine.id, clock: 'working', responseMinutes: 100, completionMinutes: 10 })
    expect(early.problem.reasons).toMatchObject([{ field: 'completionMinutes', sentence: 'Finishing is promised no earlier than responding.' }])
  })
})

test('health and the contract say what is there', async () => {
  expect(await cast.anybody.must(readHealth, {})).toMatchObject({ state: 'in order', database: true })
  const api = (await cast.anybody.must(readOpenApi, {})) as { openapi: string; paths: Record<string, Record<string, { operationId: string; summary: string }>> }
  expect(api.openapi).toBe('3.1.0')
  const listed = Object.values(api.paths).flatMap((methods) => Object.values(methods).map((operation) => operation.operationId))
  expect(listed.sort()).toEqual(Object.keys(contract).sort())
  // What the tests hold every answer against finds one that is otherwise.
  expect(() => mustBeAsDescribed(readHealth, { state: 'in order', database: 'yes' })).toThrow(/readHealth answers something .*\/database/)
})

/** A picture of one pixel. */
const pixel = async () =>
  new Blob([
    new Uint8Array(
      await sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } })
        .png()
        .toBuffer(),
    ),
  ])
