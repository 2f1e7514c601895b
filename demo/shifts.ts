import { createHash } from 'node:crypto'
import { DateTime } from 'luxon'
import { addWorkingTime } from '#core/kit'
import { quoteRemindAt } from '#core/quotes'
import type { Setting } from './simulate'

/** Who is on call, leave that somebody asks for, and prices vendors were asked for. Invented. */
export function makeShifts({ world, staff, crew }: Setting): void {
  const { rows, now, calendar } = world
  const accountOf = (name: string) => crew.find((one) => one.name === name)!.accountId
  const technicianOf = (name: string) => rows.technicians.find(({ accountId }) => accountId === accountOf(name))
  const monday = DateTime.fromJSDate(now, { zone: calendar.zone }).startOf('week')
  for (const names of [
    ['Caspian Dunmore', 'Ilse Marchetti', 'Fintan Rosewarne', 'Odalys Brannigan'],
    ['Rafferty Osei', 'Petronel Vaz'],
  ]) {
    const turns = names.map((name) => technicianOf(name)!)
    world.put('rotas', {
      teamId: turns[0]!.teamId,
      memberIds: turns.map(({ id }) => id!),
      startDay: monday.minus({ weeks: 4 }).toISODate()!,
      turnDays: 7,
      handover: '08:00',
    })
  }
  const asks = { fromDay: monday.plus({ weeks: 4 }).toISODate()!, untilDay: monday.plus({ weeks: 4, days: 3 }).toISODate()! }
  const askedAt = new Date(now.getTime() - 20 * 3_600_000)
  const ask = world.add('leaveAsks', { siteId: 1, technicianId: technicianOf('Ilse Marchetti')!.id!, ...asks, reason: 'Family visit', state: 'asked', askedAt })
  const none = { fromState: null, toState: null }
  world.add('events', {
    ...none,
    siteId: 1,
    at: askedAt,
    kind: 'leave.ask',
    actorId: accountOf('Ilse Marchetti'),
    actorName: 'Ilse Marchetti',
    reason: 'Family visit',
    details: { askId: ask.id, technicianId: ask.technicianId, name: 'Ilse Marchetti', from: asks.fromDay, until: asks.untilDay },
  })
  const order = rows.orders.find(({ siteId, summary, state }) => siteId === 1 && summary === 'Paint is peeling after the leak' && state === 'on_hold')
  if (!order) return
  const maren = staff.get('Maren Quill')!
  const dueAt = addWorkingTime(now, 900, calendar)
  const answers = [
    { vendor: 'Brightside Cleaning', netMinor: 84_000, earliest: 8, answer: 'Two coats, scaffold included.' },
    { vendor: 'Ohm and Sons', netMinor: null, earliest: 0, answer: null },
  ]
  for (const { vendor: name, netMinor, earliest, answer } of answers) {
    const vendor = rows.vendors.find((one) => one.name === name)
    if (!vendor) continue
    const quote = world.add('quotes', {
      siteId: 1,
      orderId: order.id!,
      vendorId: vendor.id!,
      state: netMinor === null ? 'asked' : 'priced',
      wanted: 'Scrape, prime and paint the ceiling where it leaked, about 12 square metres.\nThe room is free from Wednesday on.',
      askedAt,
      askedBy: maren,
      askedByName: 'Maren Quill',
      dueAt,
      netMinor,
      taxBp: netMinor === null ? null : 1_350,
      earliestAt: earliest ? monday.plus({ days: earliest, hours: 8 }).toJSDate() : null,
      answer,
      answeredAt: netMinor === null ? null : new Date(now.getTime() - 3_600_000),
      remindAt: netMinor === null ? quoteRemindAt(now, dueAt) : null,
      tellAt: netMinor === null ? dueAt : null,
      // Nobody has this link: it was never mailed.
      nonce: createHash('sha256').update(`quote ${name}`).digest('hex').slice(0, 32),
      tokenHash: createHash('sha256').update(`no quote link ${name}`).digest('hex'),
    })
    const of = { ...none, siteId: 1, orderId: order.id!, details: { quoteId: quote.id, vendor: name } }
    world.add('events', { ...of, at: askedAt, kind: 'quote.ask', actorId: maren, actorName: 'Maren Quill' })
    if (netMinor !== null)
      world.add('events', {
        ...of,
        at: quote.answeredAt!,
        kind: 'quote.price',
        actorId: null,
        actorName: name,
        reason: answer,
        details: { ...of.details, netMinor },
      })
  }
}
