import ical from 'node-ical'
import type { VEvent } from 'node-ical'
import { rearrange } from '#contract/board'
import { cancelOrder, holdOrder, recallOrder, resumeOrder } from '#contract/orders'
import { castAt, dispatched, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** What calendar programs are told of visits, read back by another library: RFC 5546, a request, a change of it, and its end. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('invitations', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

interface Told {
  to: string
  method: string
  event: VEvent
}
/** What was written of an order to calendars, in the order in which it was written; waits until there are so many. */
async function told(orderId: number, many: number): Promise<Told[]> {
  for (let tries = 0; tries < 100; tries++) {
    const rows = await house.rows<{ to: string; calendar: string }>(
      'SELECT m.`to`, m.calendar FROM mail m JOIN event e ON e.id = m.event_id WHERE e.order_id = ? AND m.calendar IS NOT NULL ORDER BY m.id',
      [orderId],
    )
    if (rows.length >= many)
      return rows.map(({ to, calendar }) => {
        const read = ical.sync.parseICS(calendar)
        const event = Object.values(read).find((one): one is VEvent => one?.type === 'VEVENT')!
        return { to, method: (read.vcalendar as { method?: string } | undefined)?.method ?? String(event.method), event }
      })
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error('Fewer mails were written.')
}
const BRAM = 'bram.oyelaran@skerry.example'
const says = ({ to, method, event }: Told) => [to, method, event.status, event.start.toISOString(), event.end!.toISOString()]

test('who is sent is asked into the calendar; another time moves the same entry, and somebody else takes it out of the first', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  const [request] = await told(id, 1)
  expect(says(request!)).toEqual([BRAM, 'REQUEST', 'CONFIRMED', '2026-11-23T11:30:00.000Z', '2026-11-23T12:30:00.000Z'])
  expect(request!.event).toMatchObject({
    uid: expect.stringMatching(new RegExp(`^visit-${visitId}@.+\\..+`)) as string,
    summary: expect.stringContaining('W-') as string,
  })
  expect(JSON.stringify(request!.event.organizer)).toContain('mailto:')
  expect(JSON.stringify(request!.event.attendee)).toContain(BRAM)
  await cast.coordinator.must(rearrange, {
    siteId: 1,
    changes: [{ visitId, version: 1, start: '2026-11-23T14:00:00Z', end: '2026-11-23T15:00:00Z' }],
  })
  const [, moved] = await told(id, 2)
  expect(says(moved!)).toEqual([BRAM, 'REQUEST', 'CONFIRMED', '2026-11-23T14:00:00.000Z', '2026-11-23T15:00:00.000Z'])
  expect([moved!.event.uid === request!.event.uid, Number(moved!.event.sequence) > Number(request!.event.sequence)]).toEqual([true, true])
  await cast.coordinator.must(rearrange, {
    siteId: 1,
    changes: [{ visitId, version: 2, technicianId: 2, start: '2026-11-23T12:30:00Z', end: '2026-11-23T13:30:00Z' }],
    despite: 'It is on the way',
  })
  const [off, on] = (await told(id, 4)).slice(2)
  expect([says(off!).slice(0, 3), says(on!).slice(1, 4)]).toEqual([
    [BRAM, 'CANCEL', 'CANCELLED'],
    ['REQUEST', 'CONFIRMED', '2026-11-23T12:30:00.000Z'],
  ])
  expect(on!.to).not.toBe(BRAM)
  // What is taken out is named by what was put in, and comes after it.
  expect([off!.event.uid, off!.event.start.toISOString(), Number(off!.event.sequence) > Number(moved!.event.sequence)]).toEqual([
    request!.event.uid,
    '2026-11-23T14:00:00.000Z',
    true,
  ])
  // A calendar program finds it in the mail itself.
  await house.mail(BRAM)
  const mails = (await (await fetch(`${house.mailUrl}/mails.json?to=${encodeURIComponent(BRAM)}`)).json()) as { files: { name: string }[] }[]
  expect(mails.flatMap(({ files }) => files.map(({ name }) => name))).toContain('invitation.ics')
})

test('taken back, called off, put on hold and on again: each is told to the calendar once', async () => {
  const recalled = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(recallOrder, { id: recalled.id, version: await version(cast, recalled.id) })
  expect((await told(recalled.id, 2)).map(({ method }) => method)).toEqual(['REQUEST', 'CANCEL'])
  const called = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(cancelOrder, { id: called.id, version: await version(cast, called.id), reason: 'Not needed' })
  expect((await told(called.id, 2)).map(({ method }) => method)).toEqual(['REQUEST', 'CANCEL'])
  const held = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(holdOrder, { id: held.id, version: await version(cast, held.id), holdReason: 'access', reason: 'Locked' })
  await cast.coordinator.must(resumeOrder, { id: held.id, version: await version(cast, held.id) })
  const all = await told(held.id, 3)
  expect(all.map(({ method }) => method)).toEqual(['REQUEST', 'CANCEL', 'REQUEST'])
  const sequences = all.map(({ event }) => Number(event.sequence))
  expect(sequences).toEqual([...sequences].sort((a, b) => a - b))
  expect(new Set(all.map(({ event }) => event.uid)).size).toBe(1)
})

test('sent again after it was taken back, it is another entry; who was never planned hears nothing', async () => {
  const { id } = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(recallOrder, { id, version: await version(cast, id) })
  await dispatched(cast, id)
  const all = await told(id, 3)
  expect(all.map(({ method, to }) => [method, to])).toEqual([
    ['REQUEST', BRAM],
    ['CANCEL', BRAM],
    ['REQUEST', BRAM],
  ])
  expect(all[2]!.event.uid).not.toBe(all[0]!.event.uid)
})

test('a vendor gets it with the pass, without a link into the application, and its end', async () => {
  const { id } = await orderAt(cast, 'ready')
  await dispatched(cast, id, { vendorId: 1 })
  const [request] = await told(id, 1)
  expect([request!.method, request!.event.url ?? null]).toEqual(['REQUEST', null])
  await cast.coordinator.must(holdOrder, { id, version: await version(cast, id), holdReason: 'access', reason: 'Locked' })
  await cast.coordinator.must(resumeOrder, { id, version: await version(cast, id) })
  expect((await told(id, 3)).map(({ method }) => method)).toEqual(['REQUEST', 'CANCEL', 'REQUEST'])
  await cast.coordinator.must(recallOrder, { id, version: await version(cast, id) })
  const off = (await told(id, 4)).at(-1)!
  expect([off.method, off.to, off.event.uid]).toEqual(['CANCEL', request!.to, request!.event.uid])
})

test('several visits moved in one act are told to each who goes once, and to their calendars one by one', async () => {
  const orders = [await orderAt(cast, 'ready'), await orderAt(cast, 'ready'), await orderAt(cast, 'ready')]
  const [first, second, third] = await Promise.all(orders.map(async ({ id }) => ({ orderId: id, version: await version(cast, id) })))
  const day = (clock: string) => `2026-12-15T${clock}:00.000Z`
  const { undo } = await cast.coordinator.must(rearrange, {
    siteId: 1,
    adds: [
      { ...first!, technicianId: 1, start: day('09:00'), end: day('10:00') },
      { ...second!, technicianId: 1, start: day('10:30'), end: day('11:30') },
      { ...third!, technicianId: 2, start: day('09:00'), end: day('10:00') },
    ],
    despite: 'For the test',
  })
  const written = async (many: number) => {
    for (let tries = 0; tries < 100; tries++) {
      const rows = await house.rows<{ to: string; subject: string; text: string; calendar: string }>(
        "SELECT m.`to`, m.subject, m.text, m.calendar FROM mail m JOIN event e ON e.id = m.event_id WHERE e.kind = 'board.rearrange' ORDER BY m.id",
      )
      if (rows.length >= many) return rows
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    throw new Error('Fewer mails were written.')
  }
  const told = await written(2)
  const bram = told.find(({ to }) => to === BRAM)!
  expect([told.length, bram.subject]).toEqual([2, 'Your plan has changed: 2 visits'])
  expect([bram.text.includes('9:00 to 10:00'), bram.text.includes('10:30 to 11:30')]).toEqual([true, true])
  // Somebody with one of them reads of that one, as ever.
  expect(told.find(({ to }) => to !== BRAM)!.subject).toMatch(/^W-.+ 09:00 to 10:00$/)
  const events = (calendar: string) =>
    calendar.split(/(?=BEGIN:VCALENDAR)/).map((one) => Object.values(ical.sync.parseICS(one)).find((part): part is VEvent => part?.type === 'VEVENT')!)
  expect(events(bram.calendar).map(({ start }) => start.toISOString())).toEqual([day('09:00'), day('10:30')])
  await cast.technician.hears((sentence) => sentence.startsWith('Your plan has changed: 2 visits. New job W-'))
  // No visit was told of by itself besides.
  const alone = await house.rows(
    "SELECT m.id FROM mail m JOIN event e ON e.id = m.event_id WHERE e.kind = 'order.dispatch' AND m.calendar IS NOT NULL AND e.order_id IN (?)",
    [orders.map(({ id }) => id)],
  )
  expect(alone.length).toBe(0)
  // As it comes out of the mail server: each calendar part by itself.
  await house.mail(BRAM, ({ subject }) => subject === bram.subject)
  const mails = (await (await fetch(`${house.mailUrl}/mails.json?to=${encodeURIComponent(BRAM)}`)).json()) as { subject: string; files: { name: string }[] }[]
  expect(mails.find(({ subject }) => subject === bram.subject)!.files.map(({ name }) => name)).toEqual(['invitation-1.ics', 'invitation-2.ics'])
  // Taken back in one act, all of it is told once again, and taken out of the calendars.
  await cast.coordinator.must(rearrange, undo)
  const off = (await written(4)).slice(2).find(({ to }) => to === BRAM)!
  expect([off.subject, off.calendar.match(/METHOD:CANCEL/g)?.length]).toEqual(['Your plan has changed: 2 visits', 2])
  expect(
    events(off.calendar)
      .map(({ uid }) => uid)
      .sort(),
  ).toEqual(
    events(bram.calendar)
      .map(({ uid }) => uid)
      .sort(),
  )
})
