import { readOrderTimeline, readOrder } from '#contract/orders'
import {
  askForPart,
  bringEquipmentBack,
  bringPartBack,
  carryJobs,
  finishJob,
  findParts,
  readJob,
  stopClock,
  switchStint,
  takeEquipment,
  usePart,
} from '#contract/field'
import { bookEquipment, readOrderBookings } from '#contract/bookings'
import { printLabels } from '#contract/places'
import { addEquipment, addPart, addStore, moveStock, readOrderParts, reservePart } from '#contract/stock'
import { readPortraitMovements } from '#contract/portraits'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** Parts and equipment in the field: out of the van or another store, brought back, asked for; taken along and given back. */
let house: House
let server: Running
let cast: Cast
let main: number
let van: number

beforeAll(async () => {
  house = await House.open('vanParts')
  server = await house.start()
  cast = await castAt(server.url)
  main = (await house.rows<{ id: number }>('SELECT id FROM store WHERE site_id = 1 ORDER BY id LIMIT 1'))[0]!.id
  const [bram] = await house.rows<{ id: number }>("SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.name = 'Bram Oyelaran'")
  van = (await cast.coordinator.must(addStore, { name: 'Van of Bram', siteId: 1, carriedBy: bram!.id })).id
})
afterAll(() => house?.close())

let parts = 0
async function part(inMain = '10', inVan = '0'): Promise<{ partId: number; code: string }> {
  const code = `VANP-${++parts}X`
  const { id: partId } = await cast.coordinator.must(addPart, { code, name: `Van part ${parts}`, unit: 'pc' })
  for (const [storeId, quantity] of [
    [main, inMain],
    [van, inVan],
  ] as const)
    if (Number(quantity)) await cast.coordinator.must(moveStock, { act: 'receipt', storeId, partId, quantity, unitCostMinor: 200 })
  return { partId, code }
}
let last: number | null = null
async function begun() {
  if (last) await cast.technician.must(stopClock, { visitId: last })
  const job = await orderAt(cast, 'dispatched')
  last = job.visitId
  await cast.technician.must(switchStint, { visitId: job.visitId, kind: 'work' })
  return job
}
const onHand = async (partId: number, storeId: number) =>
  (await cast.coordinator.must(readPortraitMovements, { register: 'parts', id: partId })).levels.find((one) => one.storeId === storeId)?.onHand
const sentence = (reply: { problem: { reasons?: { sentence: string }[] } }) => reply.problem.reasons?.[0]?.sentence

describe('parts', () => {
  test('come out of the own van first, out of the store that is named, and where they are kept for the job before either', async () => {
    const { partId } = await part('10', '2')
    const { id, visitId } = await begun()
    await cast.technician.must(usePart, { visitId, partId, quantity: '1' })
    expect([await onHand(partId, van), await onHand(partId, main)]).toEqual(['1', '10'])
    await cast.technician.must(usePart, { visitId, partId, quantity: '1', storeId: main })
    expect([await onHand(partId, van), await onHand(partId, main)]).toEqual(['1', '9'])
    await cast.coordinator.must(reservePart, { orderId: id, partId, storeId: main, quantity: '2' })
    await cast.technician.must(usePart, { visitId, partId, quantity: '1' })
    expect([await onHand(partId, van), await onHand(partId, main)]).toEqual(['1', '8'])
    // More than the van has comes from where there is enough.
    await cast.technician.must(usePart, { visitId, partId, quantity: '3' })
    expect([await onHand(partId, van), await onHand(partId, main)]).toEqual(['1', '5'])
    expect(sentence(await cast.technician.call(usePart, { visitId, partId, quantity: '2', storeId: van }))).toBe('There are 1 pc of it free there.')
    expect(sentence(await cast.technician.call(usePart, { visitId, partId, quantity: '50' }))).toBe('There are 5 pc of it in stock.')
    expect((await cast.technician.call(usePart, { visitId, partId, quantity: '1', storeId: 99_999 })).problem.reasons![0]!.field).toBe('storeId')
  })

  test('are found and carried with where they lie, what is kept for others left out', async () => {
    const { partId, code } = await part('5', '3')
    const other = await orderAt(cast, 'ready')
    await cast.coordinator.must(reservePart, { orderId: other.id, partId, storeId: main, quantity: '4' })
    const lies = [
      { storeId: van, store: 'Van of Bram', free: '3', mine: true },
      { storeId: main, store: 'Main store', free: '1', mine: false },
    ]
    expect((await cast.technician.must(findParts, { q: code })).rows).toEqual([expect.objectContaining({ code, inStock: '4', lies })])
    const carried = await cast.technician.must(carryJobs, {})
    expect(carried.parts.find((one) => one.id === partId)).toMatchObject({ inStock: '4', lies })
    expect(carried.equipment.map(({ tag }) => tag)).toContain('EQ-3')
    // To anybody else it is a store like the others.
    const sunniva = await new Client(server.url).signIn('sunniva.teague')
    expect((await sunniva.must(findParts, { q: code })).rows[0]!.lies.every(({ mine }) => !mine)).toBe(true)
  })

  test('come back into the van, or where one says, no more than was taken, also once the job was left', async () => {
    const { partId } = await part('10')
    const { id, visitId } = await begun()
    await cast.technician.must(usePart, { visitId, partId, quantity: '3' })
    const { parts: moves } = await cast.technician.must(bringPartBack, { visitId, partId, quantity: '1' })
    expect(moves.map(({ quantity }) => Number(quantity))).toEqual([3, -1])
    expect([await onHand(partId, van), await onHand(partId, main)]).toEqual(['1', '7'])
    expect(sentence(await cast.technician.call(bringPartBack, { visitId, partId, quantity: '2.5' }))).toBe('The order has 2 pc of it: no more can come back.')
    await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'No light', cause: 'Worn out', fix: 'Replaced' })
    last = null
    await cast.technician.must(bringPartBack, { visitId, partId, quantity: '1', storeId: main })
    expect(await onHand(partId, main)).toBe('8')
    const told = (await cast.coordinator.must(readOrderTimeline, { id })).entries.filter(({ kind }) => kind === 'field.partBack')
    expect(told.map(({ details }) => details)).toEqual([
      { part: `Van part ${parts}`, quantity: '1', unit: 'pc', store: 'Main store' },
      { part: `Van part ${parts}`, quantity: '1', unit: 'pc', store: 'Van of Bram' },
    ])
    expect(sentence(await cast.technician.call(bringPartBack, { visitId, partId: (await part()).partId, quantity: '1' }))).toContain('no more can come back')
  })

  test('two who take the last one at once: one has it, the other is told', async () => {
    const { partId } = await part('1')
    const other = await orderAt(cast, 'dispatched')
    const one = await begun()
    const replies = await Promise.all([1, 2].map(() => cast.technician.call(usePart, { visitId: one.visitId, partId, quantity: '1' })))
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 422])
    expect(await onHand(partId, main)).toBe('0')
    expect(sentence(await cast.technician.call(usePart, { visitId: other.visitId, partId, quantity: '1' }))).toBe('Start the clock before you use a part.')
  })

  test('out of stock are asked for: planned for the job, bought, and kept for it when they come', async () => {
    const { partId } = await part('0')
    const { id, visitId } = await begun()
    const { asked, planned } = await cast.technician.must(askForPart, { visitId, partId, quantity: '2' })
    expect(asked).toEqual([{ partId, name: `Van part ${parts}`, unit: 'pc', quantity: '2' }])
    expect(planned).toEqual([expect.objectContaining({ partId, quantity: '2', kept: [] })])
    const { rows } = await cast.coordinator.must(readOrderParts, { orderId: id })
    expect(rows.find((one) => one.partId === partId)).toMatchObject({ planned: '2', coming: [expect.objectContaining({ quantity: '2', forThis: true })] })
    // Asked for once more: more is bought, and more is planned.
    await cast.technician.must(askForPart, { visitId, partId, quantity: '1' })
    const again = (await cast.coordinator.must(readOrderParts, { orderId: id })).rows.find((one) => one.partId === partId)!
    expect([again.planned, again.coming[0]!.quantity]).toEqual(['2', '3'])
    expect((await cast.technician.call(askForPart, { visitId, partId: 99_999, quantity: '1' })).problem.reasons![0]!.field).toBe('partId')
  })
})

describe('equipment', () => {
  let pieces = 0
  const piece = async () => {
    const tag = `VE-${++pieces}`
    const { id } = await cast.coordinator.must(addEquipment, { siteId: 1, tag, name: `Test piece ${pieces}`, perDayMinor: 1_000 })
    return { equipmentId: id, tag, name: `Test piece ${pieces}` }
  }
  const hours = (n: number) => new Date(Date.parse('2026-11-23T10:30:00Z') + n * 3_600_000).toISOString()

  test('booked for the job is taken along by its tag and given back, with what is to be said of it', async () => {
    const { equipmentId, tag, name } = await piece()
    const { id, visitId } = await begun()
    await cast.coordinator.must(bookEquipment, { orderId: id, equipmentId, from: hours(0), until: hours(8) })
    expect((await cast.technician.must(readJob, { visitId })).equipment).toEqual([
      expect.objectContaining({ equipmentId, tag, name, state: 'booked', has: null }),
    ])
    const out = await cast.technician.must(takeEquipment, { visitId, equipmentId })
    expect(out.equipment).toEqual([expect.objectContaining({ state: 'out', has: 'Bram Oyelaran' })])
    // Said again, from the other phone: it is with the job already.
    await cast.technician.must(takeEquipment, { visitId, equipmentId })
    const back = await cast.technician.must(bringEquipmentBack, { visitId, equipmentId, note: 'One wheel is loose' })
    expect(back.equipment).toEqual([expect.objectContaining({ state: 'back', has: null })])
    await cast.technician.must(bringEquipmentBack, { visitId, equipmentId })
    const { rows } = await cast.coordinator.must(readOrderBookings, { orderId: id })
    expect(rows).toEqual([expect.objectContaining({ tag, state: 'back', note: 'One wheel is loose' })])
    expect(JSON.stringify(back)).not.toContain('1000')
  })

  test('nobody has booked is booked by being taken; what others have is not, and says who', async () => {
    const { equipmentId } = await piece()
    const [mine, other] = [await begun(), await orderAt(cast, 'ready')]
    await cast.technician.must(takeEquipment, { visitId: mine.visitId, equipmentId })
    const [booking] = (await cast.coordinator.must(readOrderBookings, { orderId: mine.id })).rows
    expect(booking).toMatchObject({ state: 'out', has: 'Bram Oyelaran' })
    expect((await cast.coordinator.call(bookEquipment, { orderId: other.id, equipmentId, from: hours(1), until: hours(2) })).status).toBe(422)
    const theirs = await piece()
    await cast.coordinator.must(bookEquipment, { orderId: other.id, equipmentId: theirs.equipmentId, from: hours(0), until: hours(3) })
    const { number } = await cast.coordinator.must(readOrder, { id: other.id })
    expect(sentence(await cast.technician.call(takeEquipment, { visitId: mine.visitId, equipmentId: theirs.equipmentId }))).toBe(
      `It is booked for ${number} then.`,
    )
    expect(sentence(await cast.technician.call(bringEquipmentBack, { visitId: mine.visitId, equipmentId: theirs.equipmentId }))).toContain(
      'is not with this job',
    )
    expect((await cast.technician.call(takeEquipment, { visitId: mine.visitId, equipmentId: 99_999 })).problem.reasons![0]!.field).toBe('equipmentId')
  })

  test('without an inspection that lasts is not taken; taken and back long before it is heard of, it counts from then', async () => {
    const { id: equipmentId } = await cast.coordinator.must(addEquipment, { siteId: 1, tag: 'VE-OLD', name: 'Old tower', inspectedUntil: '2026-11-20' })
    const { id, visitId } = await begun()
    expect(sentence(await cast.technician.call(takeEquipment, { visitId, equipmentId }))).toContain('inspection')
    const fresh = await piece()
    await cast.technician.must(takeEquipment, { visitId, equipmentId: fresh.equipmentId, happenedAt: hours(-3) })
    await cast.technician.must(bringEquipmentBack, { visitId, equipmentId: fresh.equipmentId, happenedAt: hours(-1) })
    const [booking] = (await cast.coordinator.must(readOrderBookings, { orderId: id })).rows
    expect(booking).toMatchObject({ outAt: expect.stringContaining('07:30') as string, backAt: expect.stringContaining('09:30') as string })
  })
})

test('strangers and other jobs: nobody takes, returns or asks on a job that is not theirs', async () => {
  const { partId } = await part('5')
  const { visitId } = await begun()
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  const tries = [
    stranger.call(usePart, { visitId, partId, quantity: '1' }),
    stranger.call(bringPartBack, { visitId, partId, quantity: '1' }),
    stranger.call(askForPart, { visitId, partId, quantity: '1' }),
    stranger.call(takeEquipment, { visitId, equipmentId: 1 }),
    stranger.call(bringEquipmentBack, { visitId, equipmentId: 1 }),
  ]
  expect((await Promise.all(tries)).map(({ status }) => status)).toEqual([404, 404, 404, 404, 404])
  expect(await onHand(partId, main)).toBe('5')
})

test('labels of parts and equipment are printed to be scanned', async () => {
  const { partId } = await part('1')
  for (const [kind, ids] of [
    ['parts', String(partId)],
    ['equipment', '1,2'],
  ] as const) {
    const { status, text } = await cast.coordinator.call(printLabels, { kind, ids, size: 'small' })
    expect([status, text.slice(0, 5)]).toEqual([200, '%PDF-'])
  }
  expect((await cast.coordinator.call(printLabels, { kind: 'parts', ids: '999999', size: 'small' })).status).toBe(422)
})
