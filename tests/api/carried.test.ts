import { createHash } from 'node:crypto'
import { createServer, connect } from 'node:net'
import type { AddressInfo } from 'node:net'
import sharp from 'sharp'
import { Upload } from 'tus-js-client'
import { editOrder, holdOrder, readOrder, readOrderTimeline, recallOrder } from '#contract/orders'
import { addNote, addSentPhoto, carryJobs, correctStint, finishJob, readJob, stopClock, switchStint, tellUnsent } from '#contract/field'
import { readAttachment } from '#contract/orders'
import { Client, castAt, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** What phones recorded without signal: taken with the moment it happened, once, and never over what is known by then. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('carried')
  began = Date.now()
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const at = (clock: string, day = '2026-11-23') => `${day}T${clock}:00.000Z`
const job = async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  return { id, visitId: visitId }
}
/** The server’s clock, which began at half past ten. */
const clockNow = () => new Date(at('10:30')).getTime() + (Date.now() - began)
let began = 0
const codes = async (reply: Promise<{ problem: { reasons?: { code: string }[] } }>) => (await reply).problem.reasons?.map(({ code }) => code)

test('a job worked without signal stands as it happened: time, cost, response and timeline, with when it was heard of', async () => {
  const { id, visitId } = await job()
  const { technician } = cast
  await technician.must(switchStint, { visitId, kind: 'travel', happenedAt: at('06:00') })
  await technician.must(switchStint, { visitId, kind: 'work', happenedAt: at('06:20') })
  await technician.must(addNote, { visitId, text: 'The fuse was loose.', happenedAt: at('06:40') })
  const sheet = await technician.must(finishJob, { visitId, result: 'done', symptom: 'No power', cause: 'Wear', fix: 'Tightened', happenedAt: at('07:05') })
  expect(sheet.stints.map(({ kind, startAt, endAt, minutes }) => [kind, startAt, endAt, minutes])).toEqual([
    ['travel', at('06:00'), at('06:20'), expect.any(Number)],
    ['work', at('06:20'), at('07:05'), expect.any(Number)],
  ])
  expect(sheet.notes).toEqual([expect.objectContaining({ at: at('06:40'), text: 'The fuse was loose.' })])
  const [order] = await house.rows<{ finished_at: string }>('SELECT finished_at FROM work_order WHERE id = ?', [id])
  expect(new Date(order!.finished_at).toISOString()).toBe(at('07:05'))
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  const left = entries.find(({ kind }) => kind === 'field.leave')!
  expect([left.at, new Date(String(left.details?.heardAt)) > new Date(at('10:00'))]).toEqual([at('07:05'), true])
})

test('a clock that runs ahead makes nothing happen later than it was heard; what is over a month old is for the desk', async () => {
  const { visitId } = await job()
  const { technician } = cast
  const ahead = await technician.must(switchStint, { visitId, kind: 'work', happenedAt: at('10:00', '2031-01-01') })
  expect(new Date(ahead.running!.startAt) < new Date(at('12:00'))).toBe(true)
  await technician.must(stopClock, { visitId })
  expect(await codes(technician.call(addNote, { visitId, text: 'Old', happenedAt: at('11:00', '2026-10-24') }))).toEqual(undefined)
  expect(await codes(technician.call(addNote, { visitId, text: 'Too old', happenedAt: at('09:00', '2026-10-23') }))).toEqual(['too_long_ago'])
})

test('time recorded late never lies over other time of theirs: not another job’s, not what they put right since, and not from two phones at once', async () => {
  const [one, two] = [await job(), await job()]
  const { technician } = cast
  await technician.must(switchStint, { visitId: one.visitId, kind: 'work', happenedAt: at('02:00') })
  await technician.must(stopClock, { visitId: one.visitId, happenedAt: at('03:00') })
  const late = await technician.call(switchStint, { visitId: two.visitId, kind: 'work', happenedAt: at('02:30') })
  const { number } = await cast.coordinator.must(readOrder, { id: one.id })
  expect(late.problem.reasons).toEqual([
    expect.objectContaining({ code: 'overlaps', sentence: expect.stringContaining(`You were on ${number} from`) as string }),
  ])
  // Begun before it, it may not run into it; its end decides.
  await technician.must(switchStint, { visitId: two.visitId, kind: 'travel', happenedAt: at('01:00') })
  expect(await codes(technician.call(stopClock, { visitId: two.visitId, happenedAt: at('02:10') }))).toEqual(['overlaps'])
  await technician.must(stopClock, { visitId: two.visitId, happenedAt: at('02:00') })
  // As one ends, the next begins.
  await technician.must(switchStint, { visitId: two.visitId, kind: 'work', happenedAt: at('03:00') })
  const stopped = await technician.must(stopClock, { visitId: two.visitId, happenedAt: at('03:30') })
  await technician.must(correctStint, {
    visitId: two.visitId,
    stintId: stopped.stints[1]!.id,
    startAt: at('03:00'),
    endAt: at('04:00'),
    reason: 'Forgot',
    happenedAt: at('09:00'),
  })
  const third = await job()
  expect(await codes(technician.call(switchStint, { visitId: third.visitId, kind: 'work', happenedAt: at('03:45') }))).toEqual(['overlaps'])
  const fourth = await job()
  const both = await Promise.all([third, fourth].map(({ visitId }) => technician.call(switchStint, { visitId, kind: 'work', happenedAt: at('05:00') })))
  expect(both.map(({ status }) => status).sort()).toEqual([200, 422])
  for (const { visitId } of [third, fourth]) await technician.must(stopClock, { visitId, happenedAt: at('05:10') })
})

test('what the other phone did later does not keep out what this one did before', async () => {
  const [early, now] = [await job(), await job()]
  const { technician } = cast
  await technician.must(switchStint, { visitId: now.visitId, kind: 'work' })
  // At one moment there is one clock, whatever the phones’ clocks say; only what happened well before is told apart.
  expect(await codes(technician.call(switchStint, { visitId: early.visitId, kind: 'work', happenedAt: new Date(clockNow() - 5_000).toISOString() }))).toEqual([
    'clock_elsewhere',
  ])
  await technician.must(switchStint, { visitId: early.visitId, kind: 'work', happenedAt: at('00:10') })
  expect((await technician.must(carryJobs, {})).rows.filter(({ running }) => running).map(({ visitId }) => visitId)).toEqual([now.visitId])
  const done = await technician.must(finishJob, { visitId: early.visitId, result: 'return', happenedAt: at('00:40') })
  expect(done.stints).toEqual([expect.objectContaining({ startAt: at('00:10'), endAt: at('00:40') })])
  await technician.must(stopClock, { visitId: now.visitId })
})

test('an act sent again after days is known for done, though its answer is kept no longer; another under its key is not taken', async () => {
  const { visitId } = await job()
  const key = 'act0000000000000001'
  const sent = { visitId, text: 'Once', happenedAt: at('08:00') }
  await cast.technician.must(addNote, sent, { key })
  await house.rows("UPDATE idempotency_key SET at = '2026-11-20 00:00:00', answer = NULL WHERE `key` = ?", [key])
  const again = await cast.technician.call(addNote, sent, { key })
  expect([again.status, again.problem.reasons?.[0]?.code]).toEqual([409, 'done_before'])
  expect((await cast.technician.call(addNote, { ...sent, text: 'Twice' }, { key })).status).toBe(422)
  expect((await cast.technician.must(readJob, { visitId })).notes.map(({ text }) => text)).toEqual(['Once'])
})

test('a job taken back meanwhile takes nothing more, and what was done on it reaches the desk in words; a stranger’s does not', async () => {
  const { id, visitId } = await job()
  await cast.coordinator.must(recallOrder, { id, version: await version(cast, id), reason: 'Given to others' })
  const refused = await cast.technician.call(switchStint, { visitId, kind: 'work', happenedAt: at('09:00') })
  expect([refused.status, refused.problem.detail]).toEqual([404, 'The desk took this job back from you.'])
  const words = { visitId, what: 'Note: the valve is shut', why: 'There is no such job.', happenedAt: at('09:05') }
  await cast.technician.must(tellUnsent, words)
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.find(({ kind }) => kind === 'field.unsent')).toMatchObject({ at: at('09:05'), details: { what: words.what, why: words.why } })
  const { number } = await cast.coordinator.must(readOrder, { id })
  await cast.coordinator.hears((sentence) => sentence.includes(`recorded on ${number} what could not be taken`))
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await stranger.call(tellUnsent, words)).status).toBe(404)
})

test('what a phone carries along has no money and nobody else’s jobs, and its marks change with whatever happens to a job', async () => {
  const mine = await job()
  const read = async () => cast.technician.must(carryJobs, {})
  const markOf = async () => (await read()).marks.find(({ visitId }) => visitId === mine.visitId)?.mark
  const [before, quiet] = [await markOf(), await markOf()]
  expect([typeof before, quiet]).toEqual(['string', before])
  await cast.coordinator.must(editOrder, { id: mine.id, version: await version(cast, mine.id), noteForWorker: 'Take the small ladder' })
  expect(await markOf()).not.toBe(before)
  const carried = await read()
  expect(JSON.stringify(carried)).not.toMatch(/minor|cost|price|rate/i)
  expect(carried.parts.length).toBeGreaterThan(5)
  const others = await (await new Client(server.url).signIn('fintan.rosewarne')).must(carryJobs, {})
  expect(others.rows.some(({ visitId }) => visitId === mine.visitId)).toBe(false)
  await cast.coordinator.must(holdOrder, { id: mine.id, version: await version(cast, mine.id), holdReason: 'other', reason: 'Wait' } as never)
  expect((await read()).rows.length).toBeGreaterThan(0)
  expect((await cast.clerk.call(carryJobs, {})).status).toBe(403)
})

/** A line that breaks each time so many bytes have gone over it in all. */
async function breakingLine(to: string, breaks: number[]) {
  const target = new URL(to)
  let gone = 0
  const line = createServer((near) => {
    const far = connect(Number(target.port), target.hostname)
    near.on('data', (chunk: Buffer) => {
      far.write(chunk)
      gone += chunk.length
      if (gone < (breaks[0] ?? Infinity)) return
      breaks.shift()
      near.destroy()
      far.destroy()
    })
    far.on('data', (chunk: Buffer) => near.write(chunk))
    for (const [one, other] of [
      [near, far],
      [far, near],
    ] as const)
      one.on('close', () => other.destroy()).on('error', () => other.destroy())
  })
  await new Promise<void>((resolve) => line.listen(0, '127.0.0.1', resolve))
  return { url: `http://127.0.0.1:${(line.address() as AddressInfo).port}`, close: () => line.close() }
}

async function photoOf(bytes: number): Promise<Buffer> {
  // Noise cannot be squeezed: about a byte for each of its dots.
  const side = Math.ceil(Math.sqrt(bytes / 0.8))
  const dots = Buffer.alloc(side * side * 3)
  for (let index = 0, seed = 7; index < dots.length; index++) dots[index] = (seed = (seed * 1_103_515_245 + 12_345) & 0x7fffffff) >> 16
  return sharp(dots, { raw: { width: side, height: side, channels: 3 } })
    .jpeg({ quality: 92 })
    .toBuffer()
}

const send = (url: string, file: Buffer, headers: Record<string, string>, uploadUrl?: string) => {
  let known = uploadUrl
  return new Promise<{ url: string | undefined; failed: boolean }>((resolve) =>
    new Upload(file, {
      endpoint: `${url}/api/uploads`,
      uploadUrl,
      chunkSize: 512 * 1024,
      retryDelays: [],
      headers,
      onUploadUrlAvailable: () => void 0,
      onSuccess: () => resolve({ url: known, failed: false }),
      onError: () => resolve({ url: known, failed: true }),
      onAfterResponse: (_request, response) => {
        const location = response.getHeader('Location')
        if (location) known = location
      },
    }).start(),
  )
}

test('a photo of 8 MB over a line that breaks five times arrives whole, once, and is nobody else’s to take', async () => {
  const { visitId } = await job()
  const photo = await photoOf(8_000_000)
  expect(photo.length).toBeGreaterThan(8_000_000)
  const headers = { Cookie: cast.technician.session }
  const line = await breakingLine(server.url, [700_000, 2_200_000, 2_500_000, 5_000_000, 5_900_000])
  let [tries, url] = [0, undefined as string | undefined]
  try {
    for (let failed = true; failed && tries < 40; tries++) {
      // The server may still be waiting on the line that broke.
      if (tries) await new Promise((resolve) => setTimeout(resolve, 250))
      const went = await send(line.url, photo, headers, url ? new URL(url, line.url).href : undefined)
      ;({ failed } = went)
      url ??= went.url
    }
  } finally {
    line.close()
  }
  expect(tries).toBeGreaterThan(5)
  const upload = url!.split('/').at(-1)!
  const pieces = await house.rows<{ content: Buffer }>('SELECT content FROM upload_piece WHERE upload_id = ? ORDER BY position', [upload])
  const checksum = createHash('sha256').update(photo).digest('hex')
  expect(
    createHash('sha256')
      .update(Buffer.concat(pieces.map(({ content }) => content)))
      .digest('hex'),
  ).toBe(checksum)

  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await fetch(`${server.url}/api/uploads/${upload}`, { method: 'HEAD', headers: { Cookie: stranger.session, 'Tus-Resumable': '1.0.0' } })).status).toBe(
    404,
  )
  expect((await fetch(`${server.url}/api/uploads`, { method: 'POST', headers: { 'Tus-Resumable': '1.0.0', 'Upload-Length': '10' } })).status).toBe(401)
  const key = 'photo00000000000001'
  const sent = { visitId, upload, checksum, happenedAt: at('09:15') }
  expect(await codes(cast.technician.call(addSentPhoto, { ...sent, checksum: '0'.repeat(64) }))).toEqual(['upload_damaged'])
  const sheet = await cast.technician.must(addSentPhoto, sent, { key })
  expect(sheet.photos).toHaveLength(1)
  // Its answer was lost: the photo is not there twice, though what was sent is gone.
  expect((await cast.technician.must(addSentPhoto, sent, { key })).photos).toEqual(sheet.photos)
  expect(await codes(cast.technician.call(addSentPhoto, sent))).toEqual(['upload_gone'])
  const kept = await fetch(`${server.url}${readAttachment.path.replace(':id', String(sheet.photos[0]!.id))}`, { headers })
  const { width } = await sharp(Buffer.from(await kept.arrayBuffer())).metadata()
  expect(width).toBeGreaterThan(1_000)
})

test('what is too large is not begun, and what is not all there is not taken', async () => {
  const headers = { Cookie: cast.technician.session, 'Tus-Resumable': '1.0.0' }
  const begin = (bytes: number) => fetch(`${server.url}/api/uploads`, { method: 'POST', headers: { ...headers, 'Upload-Length': String(bytes) } })
  expect((await begin(16 * 1024 * 1024)).status).toBe(413)
  const begun = await begin(10)
  expect(begun.status).toBe(201)
  const { visitId } = await job()
  const upload = begun.headers.get('Location')!.split('/').at(-1)!
  expect(await codes(cast.technician.call(addSentPhoto, { visitId, upload, checksum: '0'.repeat(64) }))).toEqual(['upload_unfinished'])
})
