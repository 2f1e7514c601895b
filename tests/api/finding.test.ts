import { listOrderLines, listRequestLines, search } from '#contract/lists'
import { listOrders } from '#contract/orders'
import { findPeople } from '#contract/people'
import { findPlaces } from '#contract/places'
import { enterCall, findCounterSpots, listRequests, readCounter, readRequest, reportRequest, triageRequest } from '#contract/requests'
import { makeApiKey, readIntakeSetup, saveCategory, takeTable } from '#contract/setup'
import { castAt, Client, House, report } from '../kit'
import type { Cast, Running } from '../kit'

/** Found however it is typed; ordered as asked; told by programs and tables in whatever they write. */
let house: House
let server: Running
let cast: Cast
let admin: Client

beforeAll(async () => {
  house = await House.open('finding')
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(() => house?.close())

test('numbers are found in any way of typing them, in search, lists and queues', async () => {
  const [order] = await house.rows<{ number: string }>("SELECT number FROM work_order WHERE state = 'ready' LIMIT 1")
  const [, digits] = order!.number.split('-')
  for (const q of [`w${digits}`, `W ${digits}`, `w-${digits}`, `W${digits}`, digits!]) {
    const found = await cast.coordinator.must(search, { q })
    expect([q, found.rows[0]!.title]).toEqual([q, order!.number])
    expect((await cast.coordinator.must(listOrders, { q, station: 'dispatch' })).rows.map((row) => row.number)).toContain(order!.number)
    if (q !== digits) expect((await cast.coordinator.must(listOrderLines, { ask: `words=${q}` })).rows.map((row) => row.number)).toEqual([order!.number])
  }
  const { number } = await report(cast)
  expect((await cast.coordinator.must(search, { q: number.replace('-', '') })).rows[0]!.title).toBe(number)
})

test('places are found by a code without its hyphen, at the desk and at the Counter, that one first', async () => {
  const [place] = await house.rows<{ code: string }>("SELECT code FROM place WHERE code LIKE 'GAN-2%' ORDER BY code LIMIT 1")
  const bare = place!.code.replace('-', '').toLowerCase()
  expect((await cast.coordinator.must(findPlaces, { q: bare })).rows[0]!.code).toBe(place!.code)
  expect((await cast.anybody.must(findCounterSpots, { site: 'SKE', q: bare.toUpperCase() })).rows[0]!.code).toBe(place!.code)
})

test('words that say nothing take nothing away: lists, queues and search find the same', async () => {
  const { id, number } = await report(cast, { summary: 'Zephyr leaking through the gasket in the lab' })
  for (const q of ['the zephyr in the lab', 'zephyr gasket', 'a zephyr leaking']) {
    expect((await cast.coordinator.must(listRequestLines, { ask: `words=${encodeURIComponent(q)}` })).rows.map((row) => row.number)).toEqual([number])
    expect((await cast.coordinator.must(listRequests, { q, station: 'intake' })).rows.map((row) => row.number)).toEqual([number])
    expect((await cast.coordinator.must(search, { q })).rows.some((row) => row.type === 'request' && row.id === id)).toBe(true)
  }
})

test('requests are put in order by priority and by place, every row once, over pages', async () => {
  const pages = async (sort: string) => {
    const rows = []
    let after: string | undefined
    do {
      const page = await cast.coordinator.must(listRequestLines, { ask: `sort=${sort}&received=-30d..`, limit: 40, after })
      rows.push(...page.rows)
      after = page.next ?? undefined
    } while (after)
    return rows
  }
  const [{ n }] = (await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM request WHERE received_at >= '2026-10-24'")) as [{ n: number }]
  const RANK = ['emergency', 'urgent', 'routine', 'deferred']
  for (const down of ['', '-']) {
    const byPriority = await pages(`${down}priority`)
    expect(new Set(byPriority.map((row) => row.id)).size).toBe(byPriority.length)
    expect(Math.abs(byPriority.length - n)).toBeLessThan(5)
    const ranks = byPriority.map((row) => (row.priority ? RANK.indexOf(row.priority) : null))
    const filled = ranks.filter((rank) => rank !== null)
    expect(filled).toEqual([...filled].sort((a, b) => (down ? b - a : a - b)))
    // What has none comes last, whichever way.
    expect(ranks.lastIndexOf(null) === -1 || ranks.indexOf(null) === filled.length).toBe(true)
    const codes = (await pages(`${down}place`)).flatMap((row) => row.place ?? [])
    expect(codes).toEqual([...codes].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0) * (down ? -1 : 1)))
  }
})

test('a call needs one line; an exact extension comes before names; an inspection is a way in', async () => {
  const made = await cast.coordinator.must(enterCall, {
    siteId: 1,
    placeId: 20,
    summary: 'Door squeaks',
    channel: 'inspection',
    name: 'Somebody unknown',
  } as never)
  expect(await cast.coordinator.must(readRequest, { id: made.id })).toMatchObject({
    channel: 'inspection',
    description: '',
    reporter: { name: 'Somebody unknown' },
  })
  await house.rows(
    "INSERT INTO person (site_id, name, extension, search_text) VALUES (1, 'Aaa 4711 Road', NULL, 'aaa 4711 road'), (1, 'Zzz Last', '4711', 'zzz last 4711')",
  )
  expect((await cast.coordinator.must(findPeople, { q: '4711' })).rows.map((row) => row.name)).toEqual(['Zzz Last', 'Aaa 4711 Road'])
})

test('a program sends several of a list, where a picture lies and where it was: the desk sees it all', async () => {
  const { categories } = await admin.must(readIntakeSetup, {})
  const { round: _, retired, hint, ...kept } = categories.find((one) => one.code === 'leak')!
  const several = { code: 'where', label: 'Where is it wet?', kind: 'several' as const, required: true, options: ['floor', 'wall', 'ceiling'] }
  await admin.must(saveCategory, { ...kept, hint: hint ?? '', retired, questions: [several] })
  const definition = (await (await fetch(`${server.url}/open311/v2/services/leak.json?jurisdiction_id=SKE`)).json()) as { attributes: { datatype: string }[] }
  expect(definition.attributes[0]!.datatype).toBe('multivaluelist')
  const { key } = await admin.must(makeApiKey, { siteId: 1, name: 'Phones' })
  const body = new URLSearchParams({
    api_key: key,
    service_code: 'leak',
    description: 'Wet',
    lat: '53.27',
    long: '-9.05',
    media_url: 'https://photos.example/a.jpg',
  })
  for (const one of ['floor', 'ceiling']) body.append('attribute[where][]', one)
  const post = (sent: URLSearchParams) => fetch(`${server.url}/open311/v2/requests.json`, { method: 'POST', body: sent })
  const [made] = (await (await post(body)).json()) as { service_request_id: string }[]
  const { rows } = await cast.coordinator.must(listRequests, { q: made!.service_request_id })
  const sheet = await cast.coordinator.must(readRequest, { id: rows[0]!.id })
  expect(sheet.answers).toEqual([{ label: 'Where is it wet?', answer: 'floor, ceiling' }])
  expect(sheet.sentBy).toMatchObject({ lat: 53.27, long: -9.05, mediaUrl: 'https://photos.example/a.jpg' })
  body.append('attribute[where][]', 'roof')
  expect((await post(body)).status).toBe(400)
  for (const [address, type] of [
    ['requests.yaml', 'application/x-www-form-urlencoded'],
    ['requests.json', 'multipart/form-data; boundary=x'],
  ] as const) {
    const reply = await fetch(`${server.url}/open311/v2/${address}`, { method: 'POST', headers: { 'Content-Type': type }, body: 'x' })
    expect(await reply.text()).not.toContain('api_key')
    expect([400, 404]).toContain(reply.status)
  }
})

test('tables in UTF-16 are read; codes that differ by an accent alone are named, and the good rows are taken', async () => {
  const take = (content: Buffer) => admin.must(takeTable, { what: 'places', siteId: 1, take: true }, { file: new Blob([new Uint8Array(content)]) })
  const rows = 'code,name,kind,parent\nTE-90,Plain,grounds,\nTÉ-90,Accented,grounds,\nTÜ-91,Another,grounds,\n'
  const report = await take(Buffer.from(rows))
  expect([report.taken, report.fresh, report.badCount]).toEqual([true, 2, 1])
  expect(report.bad[0]).toMatchObject({ line: 3, sentences: [expect.stringContaining('differ by an accent alone')] })
  const again = await take(Buffer.from('code,name,kind,parent\ntu-91,Third,grounds,\n'))
  expect([again.fresh, again.badCount]).toEqual([0, 1])
  for (const [index, encode] of [
    (text: string) => Buffer.from(`\uFEFF${text}`, 'utf16le'),
    (text: string) => Buffer.from(text, 'utf16le'),
    (text: string) => Buffer.from(`\uFEFF${text}`, 'utf16le').swap16(),
  ].entries()) {
    const wide = await take(encode(`code,name,kind,parent\nUTF-${index},Größe ${index},grounds,\n`))
    expect([index, wide.fresh, wide.badCount]).toEqual([index, 1, 0])
  }
  expect(await house.rows("SELECT name FROM place WHERE code = 'UTF-1'")).toEqual([{ name: 'Größe 1' }])
})

test('an amount in a question is read as people write it', async () => {
  const counter = (await cast.anybody.must(readCounter, { site: 'SKE' })).categories.find((one) => one.name === 'Freezer')!
  const sent = await cast.anybody.must(reportRequest, {
    site: 'SKE',
    placeId: 20,
    summary: 'Too warm',
    description: 'x',
    categoryId: counter.id,
    formId: counter.formId,
    answers: { shows: '-61,5', alarm: 'no' },
  })
  const { rows } = await cast.coordinator.must(listRequests, { q: sent.number })
  const sheet = await cast.coordinator.must(readRequest, { id: rows[0]!.id })
  expect(sheet.answers[0]!.answer).toBe('-61.5 °C')
  expect((await cast.coordinator.call(triageRequest, { id: sheet.id, version: sheet.version, summary: 'Two\nlines' })).status).toBe(200)
})
