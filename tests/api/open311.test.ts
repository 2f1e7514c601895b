import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { listRequests, readCounter, readRequest } from '#contract/requests'
import { makeApiKey, revokeApiKey } from '#contract/setup'
import { castAt, Client, House, report } from '../kit'
import type { Cast, Running } from '../kit'

/**
 * Open311 GeoReport v2, held against the field lists of the published standard
 * (wiki.open311.org/GeoReport_v2, taken down from memory: this place reaches no web).
 */
const SERVICE_FIELDS = ['service_code', 'service_name', 'description', 'metadata', 'type', 'keywords', 'group']
const ATTRIBUTE_FIELDS = ['variable', 'code', 'datatype', 'required', 'datatype_description', 'order', 'description', 'values']
const DATATYPES = ['string', 'number', 'datetime', 'text', 'singlevaluelist', 'multivaluelist']
const REQUEST_FIELDS = [
  'service_request_id',
  'status',
  'status_notes',
  'service_name',
  'service_code',
  'description',
  'agency_responsible',
  'service_notice',
  'requested_datetime',
  'updated_datetime',
  'expected_datetime',
  'address',
  'address_id',
  'zipcode',
  'lat',
  'long',
  'media_url',
]
const CREATED_FIELDS = ['service_request_id', 'service_notice', 'account_id']
const W3C = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(\.\d+)?(Z|[+-]\d{2}:\d{2})$/

let house: House
let server: Running
let cast: Cast
let admin: Client
let apiKey: string

beforeAll(async () => {
  house = await House.open('open311')
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
  apiKey = (await admin.must(makeApiKey, { siteId: 1, name: 'Quayside app' })).key
})
afterAll(() => house?.close())

type Row = Record<string, string | number | boolean>
const at = (path: string) => `${server.url}/open311/v2/${path}`
const read = async (path: string) => {
  const reply = await fetch(at(path))
  return { status: reply.status, body: (await reply.json()) as Row[] }
}
const arrays = new Set(['service', 'attribute', 'value', 'request', 'error'])
const parser = new XMLParser({ isArray: (name) => arrays.has(name), parseTagValue: false })
async function readXml(path: string, init?: RequestInit) {
  const reply = await fetch(at(path), init)
  const text = await reply.text()
  expect(reply.headers.get('content-type')).toBe('text/xml; charset=utf-8')
  expect(XMLValidator.validate(text)).toBe(true)
  return { status: reply.status, tree: parser.parse(text) as Record<string, Record<string, unknown>> }
}
const sending = (fields: Record<string, string>): RequestInit => ({ method: 'POST', body: new URLSearchParams(fields) })
const good = () => ({
  api_key: apiKey,
  service_code: 'freezer',
  address_id: 'TID-101',
  description: 'The third freezer sounds its alarm. It shows −61.',
  'attribute[shows]': '-61',
  'attribute[alarm]': 'yes',
  first_name: 'Runa',
  last_name: 'Oyelade',
  email: 'runa@program.example',
  phone: '+353 91 555 0101',
  media_url: 'https://pictures.example/freezer.jpg',
  account_id: 'a-17',
})
async function post(fields: Record<string, string>, format = 'json') {
  const reply = await fetch(at(`requests.${format}`), sending(fields))
  return { status: reply.status, body: (await reply.json()) as Row[] }
}

describe('services', () => {
  test('are our categories, with every field of the standard and no other', async () => {
    const { body } = await read('services.json?jurisdiction_id=SKE')
    const { categories } = await cast.anybody.must(readCounter, { site: 'SKE' })
    expect(body.map((row) => row.service_name)).toEqual(categories.map((row) => row.name))
    for (const row of body) expect(Object.keys(row)).toEqual(SERVICE_FIELDS)
    expect(body.find((row) => row.service_code === 'freezer')).toMatchObject({ metadata: true, type: 'realtime', group: 'Cold rooms and freezers' })
    expect(body.find((row) => row.service_code === 'paint')).toMatchObject({ metadata: false })
  })

  test('the definition holds the questions in the datatypes of the standard; XML says the same as JSON', async () => {
    const reply = await fetch(at('services/freezer.json?jurisdiction_id=ske'))
    const definition = (await reply.json()) as { service_code: string; attributes: Row[] }
    expect(definition.service_code).toBe('freezer')
    for (const [index, attribute] of definition.attributes.entries()) {
      expect(ATTRIBUTE_FIELDS).toEqual(expect.arrayContaining(Object.keys(attribute)))
      expect(DATATYPES).toContain(attribute.datatype)
      expect(attribute.order).toBe(index + 1)
    }
    expect(definition.attributes[0]).toMatchObject({
      code: 'shows',
      datatype: 'number',
      required: true,
      datatype_description: 'in °C, at least -100, at most 30',
    })
    expect(definition.attributes[1]!.values).toEqual(['yes', 'no'].map((key) => ({ key, name: key })))
    const { tree } = await readXml('services/freezer.xml?jurisdiction_id=SKE')
    const inXml = tree.service_definition!.attributes as { attribute: Row[] }
    expect(inXml.attribute.map((one) => [one.code, one.datatype, one.required])).toEqual(
      definition.attributes.map((one) => [one.code, one.datatype, String(one.required)]),
    )
    const services = await readXml('services.xml?jurisdiction_id=SKE')
    const rows = (await read('services.json?jurisdiction_id=SKE')).body
    expect((services.tree.services!.service as Row[]).map((one) => one.service_code)).toEqual(rows.map((one) => one.service_code))
  })
})

describe('reporting', () => {
  test('becomes a request in the same queue, with channel, answers and place; its program reads it back', async () => {
    const { status, body } = await post(good())
    expect([status, Object.keys(body[0]!)]).toEqual([201, CREATED_FIELDS])
    const { rows } = await cast.coordinator.must(listRequests, { q: String(body[0]!.service_request_id), station: 'intake' })
    expect(rows[0]).toMatchObject({ channel: 'system', place: 'TID-101', reporter: 'Runa Oyelade' })
    const sheet = await cast.coordinator.must(readRequest, { id: rows[0]!.id })
    expect(sheet.summary).toBe('The third freezer sounds its alarm. It shows −61.')
    expect(sheet.answers.map((one) => one.answer)).toEqual(['-61 °C', 'Yes'])
    expect(sheet.reporter.email).toBe('runa@program.example')

    const own = await read(`requests/${body[0]!.service_request_id}.json?api_key=${apiKey}`)
    expect(Object.keys(own.body[0]!)).toEqual(REQUEST_FIELDS)
    expect(own.body[0]).toMatchObject({
      status: 'open',
      service_code: 'freezer',
      address_id: 'TID-101',
      media_url: 'https://pictures.example/freezer.jpg',
      description: good().description,
    })
    for (const field of ['requested_datetime', 'updated_datetime']) expect(own.body[0]![field]).toMatch(W3C)

    // Everybody else reads that there is one, not what was written.
    const others = await read(`requests/${body[0]!.service_request_id}.json?jurisdiction_id=SKE`)
    expect(others.body[0]).toMatchObject({ description: 'Freezer', media_url: '' })
    expect(JSON.stringify(others.body)).not.toMatch(/Runa|runa@|0101|−61/)
  })

  test('a position alone is enough, and the desk asks where; an address in words is found or kept', async () => {
    const { address_id: _, ...rest } = good()
    const placed = await post({ ...rest, lat: '53.27', long: '-9.05' })
    expect(placed.status).toBe(201)
    const [row] = await house.rows<{ place_id: number | null; sent_by: object }>('SELECT place_id, sent_by FROM request WHERE number = ?', [
      placed.body[0]!.service_request_id,
    ])
    expect([row!.place_id, row!.sent_by]).toEqual([null, { lat: 53.27, long: -9.05, mediaUrl: rest.media_url, accountId: 'a-17' }])
    const named = await post({ ...rest, address_string: 'Freezer bank 1' })
    expect((await read(`requests/${named.body[0]!.service_request_id}.json?api_key=${apiKey}`)).body[0]!.address_id).toBe('TID-101')
    const vague = await post({ ...rest, address_string: 'behind the big shed' })
    const [kept] = await house.rows<{ description: string }>('SELECT description FROM request WHERE number = ?', [vague.body[0]!.service_request_id])
    expect(kept!.description).toContain('Address given: behind the big shed')
  })

  test.each<[string, Record<string, string>, number, RegExp]>([
    ['without a key', { api_key: '' }, 403, /api_key is needed/],
    ['with a key nobody has', { api_key: 'x'.repeat(43) }, 403, /not known/],
    ['for another site', { jurisdiction_id: 'MUS' }, 403, /not for jurisdiction_id MUS/],
    ['for no site there is', { jurisdiction_id: 'ATLANTIS' }, 404, /ATLANTIS was not found/],
    ['without a service', { service_code: '' }, 400, /service_code was not provided/],
    ['of a service there is not', { service_code: 'teleport' }, 404, /teleport was not found/],
    ['without a description', { description: ' ' }, 400, /description: This is needed/],
    ['with a description too long', { description: 'x'.repeat(4001) }, 400, /description: Write at most 4000/],
    ['without a place', { address_id: '' }, 400, /Say where/],
    ['with half a position', { address_id: '', lat: '53' }, 400, /long/],
    ['with a position off the globe', { lat: '153', long: '0' }, 400, /lat: /],
    ['at a place there is not', { address_id: 'NOWHERE-9' }, 400, /NOWHERE-9 is no place/],
    ['without a needed attribute', { 'attribute[shows]': '' }, 400, /attribute\[shows\]: This is needed/],
    ['with an attribute out of range', { 'attribute[shows]': '4000' }, 400, /attribute\[shows\]: .*at most 30/],
    ['with a mail address that is none', { email: 'not one' }, 400, /email: /],
  ])('%s is refused in the standard’s error format, and leaves no row', async (_name, change, status, sentence) => {
    const count = async () => (await house.rows<{ n: number }>('SELECT COUNT(*) AS n FROM request'))[0]!.n
    const before = await count()
    const fields = Object.fromEntries(Object.entries({ ...good(), ...change }).filter(([, value]) => value !== ''))
    const reply = await post(fields)
    expect(reply.status).toBe(status)
    expect(Object.keys(reply.body[0]!)).toEqual(['code', 'description'])
    expect(reply.body[0]!.code).toBe(status)
    expect(reply.body[0]!.description).toMatch(sentence)
    expect(await count()).toBe(before)
  })

  test('errors in XML, strange addresses and strange formats too', async () => {
    const refused = await readXml('requests.xml', sending({ service_code: 'freezer', description: 'x' }))
    expect(refused.status).toBe(403)
    expect((refused.tree.errors!.error as Row[])[0]).toMatchObject({ code: '403' })
    expect((await fetch(at('requests.yaml?jurisdiction_id=SKE'))).status).toBe(404)
    expect((await read('services.json')).body[0]!.description).toContain('jurisdiction_id was not provided. It is one of SKE, MUS.')
  })

  test('what somebody wrote stays words in XML', async () => {
    const words = 'A <b>leak</b> & a "puddle" ]]> \u0007bell'
    const { address_id: _, ...rest } = good()
    const sent = await readXml('requests.xml', sending({ ...rest, address_id: 'TID-101', description: words }))
    expect(sent.status).toBe(201)
    const number = (sent.tree.service_requests!.request as Row[])[0]!.service_request_id
    const own = await readXml(`requests/${number}.xml?api_key=${apiKey}`)
    expect((own.tree.service_requests!.request as Row[])[0]!.description).toBe(words.replace('\u0007', ''))
  })

  test('a key taken back opens nothing; a key is shown once and not kept', async () => {
    const made = await admin.must(makeApiKey, { siteId: 1, name: 'Short-lived' })
    expect(await house.rows('SELECT id FROM api_key WHERE key_hash = ?', [made.key])).toEqual([])
    const kept = await house.rows<{ answer: string | null }>("SELECT answer FROM idempotency_key WHERE endpoint = '/api/setup/api-keys'")
    expect(kept.every((row) => row.answer === null || row.answer === 'null')).toBe(true)
    const id = made.setup.apiKeys.find((one) => one.name === 'Short-lived')!.id
    await admin.must(revokeApiKey, { id })
    expect((await post({ ...good(), api_key: made.key })).status).toBe(403)
  })
})

describe('reading many', () => {
  test('filters by service, status, span and number hold for every row', async () => {
    const all = (await read(`requests.json?api_key=${apiKey}`)).body
    expect(all.length).toBeGreaterThan(100)
    expect(all.length).toBeLessThanOrEqual(1000)
    const times = all.map((row) => String(row.requested_datetime))
    expect(times).toEqual([...times].sort().reverse())
    // Nothing asked: the last ninety days of the standard.
    expect(Date.parse('2026-11-23T10:30:00Z') - Date.parse(times.at(-1)!)).toBeLessThanOrEqual(90 * 86_400_000)

    const open = (await read(`requests.json?api_key=${apiKey}&status=open&service_code=water,heat`)).body
    expect(open.length).toBeGreaterThan(0)
    expect(open.every((row) => row.status === 'open' && ['water', 'heat'].includes(String(row.service_code)))).toBe(true)
    const closed = all.filter((row) => row.status === 'closed').length
    expect((await read(`requests.json?api_key=${apiKey}&status=closed`)).body.length).toBeGreaterThanOrEqual(closed)

    const span = (await read(`requests.json?api_key=${apiKey}&start_date=2026-05-01T00:00:00Z&end_date=2026-05-08T00:00:00Z`)).body
    const [counted] = await house.rows<{ n: number }>(
      "SELECT COUNT(*) AS n FROM request WHERE site_id = 1 AND received_at BETWEEN '2026-05-01' AND '2026-05-08'",
    )
    expect(span).toHaveLength(counted!.n)
    const two = [span[0]!.service_request_id, all[0]!.service_request_id]
    expect((await read(`requests.json?api_key=${apiKey}&service_request_id=${two.join(',')}`)).body.map((row) => row.service_request_id).sort()).toEqual(
      [...two].sort(),
    )
    expect((await read(`requests.json?api_key=${apiKey}&start_date=yesterday`)).status).toBe(400)
    expect((await read(`requests.json?api_key=${apiKey}&status=lost`)).status).toBe(400)
  })

  test('a status is what the rows say: done, called off and declined are closed', async () => {
    const all = (await read(`requests.json?api_key=${apiKey}&start_date=2026-10-01T00:00:00Z&end_date=2026-11-23T10:30:00Z`)).body
    const rows = await house.rows<{ number: string; state: string; joined: number | null; going: number; orders: number; done: number }>(
      `SELECT r.number, r.state, r.joined_to_id AS joined, COUNT(o.id) AS orders,
              SUM(o.state IN ('draft', 'to_approve', 'ready', 'dispatched', 'on_job', 'on_hold')) AS going, SUM(o.state IN ('done', 'checked', 'closed')) AS done
       FROM request r LEFT JOIN request_order ro ON ro.request_id = r.id LEFT JOIN work_order o ON o.id = ro.order_id GROUP BY r.id`,
    )
    const byNumber = new Map(rows.map((row) => [row.number, row]))
    for (const row of all) {
      const kept = byNumber.get(String(row.service_request_id))!
      if (kept.joined) continue
      const over = kept.state === 'declined' || (kept.orders > 0 && Number(kept.going) === 0)
      expect([row.service_request_id, row.status]).toEqual([row.service_request_id, over ? 'closed' : 'open'])
    }
  })

  test('without a key only what programs sent is listed', async () => {
    const told = await report(cast)
    const listed = (await read('requests.json?jurisdiction_id=SKE')).body.map((row) => row.service_request_id)
    expect(listed.length).toBeGreaterThan(0)
    expect(listed).not.toContain(told.number)
    const sent = await house.rows<{ number: string }>('SELECT number FROM request WHERE api_key_id IS NOT NULL')
    expect([...listed].sort()).toEqual(sent.map((row) => row.number).sort())
  })
})
