import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import jsQR from 'jsqr'
import sharp from 'sharp'
import { listJobs, readJob } from '#contract/field'
import { findJob, printDay, printMyDay, printOrder } from '#contract/jobsheets'
import { editOrder, readOrder } from '#contract/orders'
import { castAt, Client, dispatched, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Job sheets as they come out of the printer, read back by other programs. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('jobsheets')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const fetched = async (who: Client, address: string) => {
  const answer = await fetch(server.url + address, { headers: { Cookie: who.session } })
  return { status: answer.status, type: answer.headers.get('content-type'), bytes: Buffer.from(await answer.arrayBuffer()) }
}
let count = 0
/** The text of each page. */
function pagesOf(bytes: Buffer): string[] {
  const file = path.join(house.folder, `sheet-${++count}.pdf`)
  writeFileSync(file, bytes)
  return execFileSync('pdftotext', ['-layout', file, '-']).toString().split('\f').slice(0, -1)
}
/** Where the code on a page leads, read as a telephone does. */
async function codeOn(page: number): Promise<string | undefined> {
  const from = path.join(house.folder, `sheet-${count}.pdf`)
  const to = path.join(house.folder, `page-${count}-${page}`)
  execFileSync('pdftoppm', ['-png', '-r', '150', '-singlefile', '-f', String(page), from, to])
  const { data, info } = await sharp(readFileSync(`${to}.png`))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data
}
const printed = (id: number, copy: string) => fetched(cast.coordinator, printOrder.path.replace(':id', String(id)).replace(':copy', copy))

async function job() {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(editOrder, {
    id,
    version: await version(cast, id),
    access: 'Ring at the porter',
    noteForWorker: 'Mind the dog',
    noteForPayer: 'Covered by your lease',
  })
  return { id, visitId, number: (await cast.coordinator.must(readOrder, { id })).number }
}

test('three copies of one order, each on one page: money for the desk alone, the note for who pays where they read it', async () => {
  const { id, number } = await job()
  const copies: Record<string, string> = {}
  for (const copy of ['worker', 'desk', 'payer']) {
    const { status, type, bytes } = await printed(id, copy)
    expect([status, type]).toEqual([200, 'application/pdf'])
    const pages = pagesOf(bytes)
    expect(pages).toHaveLength(1)
    expect(pages[0]).toContain(number)
    copies[copy] = pages[0]!
  }
  const has = (words: string) => Object.entries(copies).flatMap(([copy, text]) => (text.includes(words) ? [copy] : []))
  expect(has('Ring at the porter')).toEqual(['worker', 'desk'])
  expect(has('Mind the dog')).toEqual(['worker', 'desk'])
  expect(has('Covered by your lease')).toEqual(['desk', 'payer'])
  expect(has('Cost so far')).toEqual(['desk'])
  expect(has('200.00')).toEqual(['desk'])
  expect(has('Bram Oyelaran')).toEqual(['worker', 'desk', 'payer'])
  expect(has('Name and signature')).toEqual(['worker'])
})

test('its code opens the job: their own visit for who does it, the Sheet for the desk, nothing for anybody else', async () => {
  const { id, visitId } = await job()
  pagesOf((await printed(id, 'worker')).bytes)
  expect(await codeOn(1)).toMatch(new RegExp(`/job/${id}$`))
  expect(await cast.technician.must(findJob, { id })).toEqual({ address: `/rounds/${visitId}` })
  expect(await cast.coordinator.must(findJob, { id })).toEqual({ address: `/desk/dispatch/order/${id}` })
  const other = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await other.call(findJob, { id })).status).toBe(404)
  expect((await cast.anybody.call(findJob, { id })).status).toBe(401)
})

test('however much is written, it is one page that says that there is more', async () => {
  const { id } = await job()
  const long = 'Water runs down the wall behind the cupboard and nobody knows from where. '.repeat(50)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), description: long.slice(0, 3_900), noteForWorker: long.slice(0, 1_900) })
  const steps = Array.from(
    { length: 60 },
    (_, at) => `(${id}, ${at + 1}, 'Step ${at + 1}: look behind the panel and write down what is there', 'plain', '[]', 0, 'open', 0)`,
  )
  await house.rows(`INSERT INTO order_step (order_id, position, text, kind, choices, first, state, outside) VALUES ${steps.join(', ')}`)
  const pages = pagesOf((await printed(id, 'worker')).bytes)
  expect(pages).toHaveLength(1)
  expect(pages[0]).toContain('There is more than fits')
  expect(pages[0]).toContain('Name and signature')
})

test('nobody is sent out with what is not approved; who may not see the site prints nothing', async () => {
  const { id } = await orderAt(cast, 'to_approve')
  expect((await printed(id, 'worker')).status).toBe(422)
  expect((await printed(id, 'desk')).status).toBe(200)
  expect((await fetched(cast.technician, `/api/orders/${id}/print/worker`)).status).toBe(403)
  expect((await printed(99_999, 'desk')).status).toBe(404)
  expect((await printed(id, 'everything')).status).toBe(400)
})

test('a day as one paper: the day, then its jobs, one page each; their own for technicians, anybody’s of the site for the desk', async () => {
  const { id, number } = await job()
  await house.rows(
    "INSERT INTO booking (site_id, equipment_id, order_id, from_at, until_at, state) VALUES (1, 1, ?, '2026-11-23 11:00:00', '2026-11-23 13:00:00', 'booked')",
    [id],
  )
  await house.rows(
    'INSERT INTO order_plan (order_id, labour, parts, tools, hazards) VALUES (?, \'[]\', \'[]\', \'[{"text":"Ladder","equipmentId":null},{"text":"Ladder","equipmentId":null}]\', \'[]\')',
    [id],
  )
  const { rows } = await cast.technician.must(listJobs, {})
  const mine = rows.find((row) => row.number === number)!
  expect(mine.bring).toBe(3)
  const { toBring } = await cast.technician.must(readJob, { visitId: mine.visitId })
  expect(toBring.map(({ many }) => many)).toEqual([1, 2])
  const today = pagesOf((await fetched(cast.technician, printMyDay.path)).bytes)
  const open = rows.filter(({ visitState }) => visitState !== 'ended').length
  expect(today.length).toBeGreaterThanOrEqual(open)
  expect(today[0]).toContain('Monday 23 November 2026')
  expect(today[0]).toMatch(new RegExp(`${number}[\\s\\S]*first visit, 3 to bring`))
  expect(today.slice(1).some((page) => page.includes(number) && page.includes('2 × Ladder'))).toBe(true)
  expect(today.join('')).not.toContain('Cost')
  const theirs = await fetched(cast.coordinator, printDay.path.replace(':technicianId', '1').replace(':day', '2026-11-23'))
  expect(pagesOf(theirs.bytes)[0]).toContain('Bram Oyelaran')
  const empty = await fetched(cast.coordinator, printDay.path.replace(':technicianId', '1').replace(':day', '2027-05-01'))
  expect(pagesOf(empty.bytes)[0]).toContain('Nothing is planned on this day.')
  expect((await fetched(cast.coordinator, printDay.path.replace(':technicianId', '99999').replace(':day', '2026-11-23'))).status).toBe(404)
  expect((await fetched(cast.coordinator, printMyDay.path)).status).toBe(403)
})

test('a recalled visit is on nobody’s paper, and its code leads them nowhere', async () => {
  const { id, number } = await job()
  await dispatched(cast, id, { technicianIds: [2] }).catch(() => null)
  await house.rows("UPDATE visit SET state = 'recalled' WHERE order_id = ?", [id])
  expect(pagesOf((await fetched(cast.technician, printMyDay.path)).bytes).join('')).not.toContain(number)
  expect((await cast.technician.call(findJob, { id })).status).toBe(404)
})
