import { and, asc, desc, eq, inArray, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { OrderSheet } from '#contract/orders'
import { VISIT_KIND_NAMES } from '#core/dispatch'
import { PERMIT_NAMES } from '#core/methods'
import { toBring } from '#core/jobsheets'
import type { ToBring } from '#core/jobsheets'
import { formatMinor } from '#core/kit'
import { FINISHED_STATES, ORDER_STATE_NAMES } from '#core/orders'
import { PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { windowSays } from '#core/windows'
import type { Asker, Reader } from '#server/kit'
import { readOrderSheet, windowOf } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { nameAsset, namePlace } from '#server/places'
import { bookings, equipment, orderPlans, orders, orderSteps, parts, people, sites, technicians, accounts, vendors, visits } from '../tables'

/** A job as it is printed, in words; whoever draws it adds nothing. */
export interface JobPaper {
  number: string
  summary: string
  description: string
  site: string
  deskPhone: string
  state: string
  priority: Priority | null
  priorityName: string | null
  visits: { who: string; when: string; kind: string }[]
  place: string | null
  asset: string | null
  agreed: string | null
  due: string | null
  access: string[]
  contact: string | null
  noteForWorker: string | null
  noteForPayer: string | null
  hazards: string[]
  steps: { text: string; measures: string | null; done: string | null }[]
  parts: string[]
  bring: ToBring[]
  earlier: string[]
  outcome: string[]
  money: { currency: string; lines: { text: string; amount: string }[]; total: string; estimate: string | null; payers: string[] } | null
  /** Where its code leads. */
  address: string
}

const EARLIER = 3

/** What is printed of an order. @param visitId the visit it is printed for, of all that are planned */
export async function jobPaper(db: Reader, who: Asker | null, orderId: number, address: string, now: Date, visitId: number | null = null): Promise<JobPaper> {
  const [found] = await db.select({ order: orders, site: sites }).from(orders).innerJoin(sites, eq(sites.id, orders.siteId)).where(eq(orders.id, orderId))
  const { order, site } = found!
  const [place, asset, visitRows, steps, [plan], booked, earlier] = await Promise.all([
    namePlace(db, order.placeId),
    nameAsset(db, order.assetId),
    db
      .select({ visit: visits, person: people.name, vendor: vendors.name })
      .from(visits)
      .leftJoin(technicians, eq(technicians.id, visits.technicianId))
      .leftJoin(accounts, eq(accounts.id, technicians.accountId))
      .leftJoin(people, eq(people.id, accounts.personId))
      .leftJoin(vendors, eq(vendors.id, visits.vendorId))
      .where(and(eq(visits.orderId, orderId), ne(visits.state, 'recalled')))
      .orderBy(asc(visits.plannedStart), asc(visits.id)),
    db.select().from(orderSteps).where(eq(orderSteps.orderId, orderId)).orderBy(asc(orderSteps.position)),
    db.select().from(orderPlans).where(eq(orderPlans.orderId, orderId)),
    bookedOf(db, [orderId]),
    earlierOn(db, order, EARLIER),
  ])
  const partIds = plan?.parts.map(({ partId }) => partId) ?? []
  const partRows = partIds.length ? await db.select().from(parts).where(inArray(parts.id, partIds)) : []
  const window = windowOf(order)
  const say = (at: Date, format: string) => DateTime.fromJSDate(at, { zone: site.zone }).setLocale('en-IE').toFormat(format)
  return {
    number: order.number,
    summary: order.summary,
    description: order.description,
    site: site.name,
    deskPhone: site.deskPhone,
    state: ORDER_STATE_NAMES[order.state],
    priority: order.priority,
    priorityName: order.priority && PRIORITY_NAMES[order.priority],
    visits: visitRows
      .filter(({ visit }) => visitId === null || visit.id === visitId)
      .map(({ visit, person, vendor }) => ({
        who: person ?? vendor ?? '',
        when: windowSays({ from: visit.plannedStart, until: visit.plannedEnd }, site.zone),
        kind: VISIT_KIND_NAMES[visit.kind],
      })),
    place: place ? [`${place.code} ${place.name}`, place.within].filter(Boolean).join(', ') : null,
    asset: asset ? `${asset.tag} ${asset.name}` : null,
    agreed: window ? `${windowSays(window, site.zone)}${window.with ? `, with ${window.with}` : ''}` : null,
    due: order.completionDueAt ? say(order.completionDueAt, 'ccc d LLL yyyy, HH:mm') : null,
    access: [place?.access, order.access].filter((text) => !!text) as string[],
    contact: [order.contactName, order.contactPhone].filter(Boolean).join(', ') || null,
    noteForWorker: order.noteForWorker,
    noteForPayer: order.noteForPayer,
    hazards:
      plan?.hazards.map(
        ({ hazard, control, permit }) => `${[hazard, control].filter(Boolean).join(': ')}${permit ? ` (permit: ${PERMIT_NAMES[permit].toLowerCase()})` : ''}`,
      ) ?? [],
    steps: steps.map((step) => ({
      text: step.text,
      measures:
        step.kind === 'measured'
          ? [limitsSay(step.least, step.most), step.unit].filter(Boolean).join(' ')
          : step.choices.length
            ? step.choices.join(' / ')
            : null,
      done: step.state === 'done' ? (step.value ?? 'done') : null,
    })),
    parts:
      plan?.parts.map(({ partId, quantity }) => {
        const part = partRows.find(({ id }) => id === partId)
        return `${Number(quantity)} ${part?.unit ?? ''} ${part ? `${part.code} ${part.name}` : 'a part'}`
      }) ?? [],
    bring: toBring(plan?.tools ?? [], booked.get(orderId) ?? []),
    earlier: earlier.map(
      ({ number, finishedAt, symptom, cause, fix }) => `${say(finishedAt, 'd LLL yyyy')} ${number}: ${[symptom, cause, fix].filter(Boolean).join(', ')}`,
    ),
    outcome: [
      ['Symptom', order.symptom],
      ['Cause', order.cause],
      ['Fix', order.fix],
      ['Note', order.outcomeNote],
    ].flatMap(([name, text]) => (text ? [`${name}: ${text}`] : [])),
    money: who ? await moneyOf(db, who, orderId, now) : null,
    address,
  }
}

const limitsSay = (least: number | null, most: number | null) =>
  least !== null && most !== null ? `${least} to ${most}` : least !== null ? `at least ${least}` : most !== null ? `at most ${most}` : ''

/** Every amount there is of it, as the Sheet shows it. */
async function moneyOf(db: Reader, who: Asker, orderId: number, now: Date): Promise<JobPaper['money']> {
  // As it is sent: what amounts are called there, they are called here.
  const sheet = JSON.parse(JSON.stringify(await readOrderSheet(db, who, orderId, now))) as OrderSheet
  return {
    currency: sheet.site.currency,
    lines: sheet.costs.map((line) => ({ text: `${line.description}: ${line.quantity} ${line.unit}`, amount: formatMinor(line.cost) })),
    total: formatMinor(sheet.costMinor),
    estimate: sheet.estimateMinor === null ? null : formatMinor(sheet.estimateMinor),
    payers: sheet.shares.map(({ payerCode, payerName, shareBp }) => `${payerCode} ${payerName}${shareBp < 10_000 ? `, ${shareBp / 100} %` : ''}`),
  }
}

/** What has to be brought to each of these orders. */
export async function bringOf(db: Reader, orderIds: readonly number[]): Promise<Map<number, ToBring[]>> {
  if (!orderIds.length) return new Map()
  const [plans, booked] = await Promise.all([
    db
      .select({ orderId: orderPlans.orderId, tools: orderPlans.tools })
      .from(orderPlans)
      .where(inArray(orderPlans.orderId, [...orderIds])),
    bookedOf(db, orderIds),
  ])
  return new Map(orderIds.map((id) => [id, toBring(plans.find((plan) => plan.orderId === id)?.tools ?? [], booked.get(id) ?? [])]))
}

/** Equipment that is kept for orders, or out for them. */
async function bookedOf(db: Reader, orderIds: readonly number[]) {
  const rows = orderIds.length
    ? await db
        .select({ orderId: bookings.orderId, equipmentId: bookings.equipmentId, tag: equipment.tag, name: equipment.name })
        .from(bookings)
        .innerJoin(equipment, eq(equipment.id, bookings.equipmentId))
        .where(and(inArray(bookings.orderId, [...orderIds]), inArray(bookings.state, ['booked', 'out'])))
        .orderBy(asc(bookings.id))
    : []
  const booked = new Map<number, { equipmentId: number; name: string }[]>()
  for (const { orderId, equipmentId, tag, name } of rows) booked.set(orderId, [...(booked.get(orderId) ?? []), { equipmentId, name: `${tag} ${name}` }])
  return booked
}

/** What was done here before: on this asset, or at this place when there is none. Only finished work, the last first. */
export async function earlierOn(db: Reader, order: Pick<OrderRecord, 'id' | 'assetId' | 'placeId'>, most: number) {
  const same = order.assetId ? eq(orders.assetId, order.assetId) : order.placeId ? eq(orders.placeId, order.placeId) : null
  if (!same) return []
  const rows = await db
    .select({ number: orders.number, finishedAt: orders.finishedAt, symptom: orders.symptom, cause: orders.cause, fix: orders.fix })
    .from(orders)
    .where(and(same, ne(orders.id, order.id), inArray(orders.state, FINISHED_STATES)))
    .orderBy(desc(orders.finishedAt))
    .limit(most)
  return rows.map((row) => ({ ...row, finishedAt: row.finishedAt! }))
}
