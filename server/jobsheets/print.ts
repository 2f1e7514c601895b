import { and, asc, eq, gte, inArray, lt, ne } from 'drizzle-orm'
import type { Response } from 'express'
import { DateTime } from 'luxon'
import * as contract from '#contract/jobsheets'
import { VISIT_KIND_NAMES } from '#core/dispatch'
import { COPY_NAMES, copyOf, countOf } from '#core/jobsheets'
import { refuse } from '#core/kit'
import { isUnapproved, SEEN_IN_FIELD, stationOf } from '#core/orders'
import { canAt, delivery, inThread, maySee, notFound, query } from '#server/kit'
import type { Reader, Service } from '#server/kit'
import { seenOrder } from '#server/orders'
import { accounts, orders, people, sites, teams, technicians, visits } from '../tables'
import { jobPaper } from './jobPaper'
import type { JobSheetsJob } from './jobSheets.worker'

const drawSheets = inThread<JobSheetsJob, Uint8Array>('jobSheets.worker')

const addressOf = (service: Service, orderId: number) => `${service.publicUrl()}/job/${orderId}`

async function send(response: Response, job: JobSheetsJob, name: string): Promise<void> {
  const pdf = await drawSheets(JSON.parse(JSON.stringify(job)) as JobSheetsJob)
  response.setHeader('Content-Type', 'application/pdf')
  response.setHeader('Content-Disposition', `inline; filename="${name}.pdf"`)
  response.end(Buffer.from(pdf))
}

export const printOrder = delivery(contract.printOrder, async ({ db, who, input, now, service, response }) => {
  const order = await seenOrder(db, who, input.id)
  if (input.copy === 'worker' && isUnapproved(order.state)) refuse('unapproved', 'It has to be approved before anybody is sent with it.')
  const paper = await jobPaper(db, input.copy === 'desk' ? who : null, order.id, addressOf(service, order.id), now)
  const title = `${order.number} ${COPY_NAMES[input.copy]}`
  await send(response, { title, day: null, papers: [{ copy: input.copy, paper: copyOf(input.copy, paper) }] }, `${order.number}-${input.copy}`)
})

interface Member {
  id: number
  name: string
  siteId: number
  zone: string
}
async function memberOf(db: Reader, technicianId: number): Promise<Member | undefined> {
  const [found] = await db
    .select({ id: technicians.id, name: people.name, siteId: teams.siteId, zone: sites.zone })
    .from(technicians)
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(teams, eq(teams.id, technicians.teamId))
    .innerJoin(sites, eq(sites.id, teams.siteId))
    .where(eq(technicians.id, technicianId))
  return found
}

const MOST_JOBS = 60

/** The day first, then a page for each job that is still to do; what technicians may not see is not in it. */
async function dayOf(db: Reader, member: Member, day: string, service: Service, now: Date): Promise<JobSheetsJob> {
  const from = DateTime.fromISO(day, { zone: member.zone })
  const rows = await db
    .select({ visit: visits, order: orders })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(
      and(
        eq(visits.technicianId, member.id),
        ne(visits.state, 'recalled'),
        inArray(orders.state, [...SEEN_IN_FIELD]),
        gte(visits.plannedStart, from.toJSDate()),
        lt(visits.plannedStart, from.plus({ days: 1 }).toJSDate()),
      ),
    )
    .orderBy(asc(visits.plannedStart), asc(visits.id))
    .limit(MOST_JOBS)
  const papers = await Promise.all(
    rows.map(async ({ visit, order }) => ({ visit, paper: copyOf('worker', await jobPaper(db, null, order.id, addressOf(service, order.id), now, visit.id)) })),
  )
  const clock = (at: Date) => DateTime.fromJSDate(at, { zone: member.zone }).toFormat('HH:mm')
  const title = `${member.name}, ${from.setLocale('en-IE').toFormat('cccc d LLLL yyyy')}`
  return {
    title,
    day: {
      title,
      who: member.name,
      day: from.setLocale('en-IE').toFormat('cccc d LLLL yyyy'),
      rows: papers.map(({ visit, paper }) => ({
        when: `${clock(visit.plannedStart)} to ${clock(visit.plannedEnd)}`,
        number: paper.number,
        summary: paper.summary,
        place: paper.place ?? '',
        kind: VISIT_KIND_NAMES[visit.kind],
        bring: countOf(paper.bring),
      })),
      note: 'Nothing is planned on this day.',
    },
    papers: papers.filter(({ visit }) => visit.state !== 'ended').map(({ paper }) => ({ copy: 'worker' as const, paper })),
  }
}

export const printDay = delivery(contract.printDay, async ({ db, who, input, now, service, response }) => {
  const member = await memberOf(db, input.technicianId)
  if (!member || !maySee(who, member.siteId)) throw notFound('technician')
  await send(response, await dayOf(db, member, input.day, service, now), `${member.name.toLowerCase().replace(/[^a-z]+/g, '-')}-${input.day}`)
})

export const printMyDay = delivery(contract.printMyDay, async ({ db, who, input, now, service, response }) => {
  const member = who.technicianId === null ? undefined : await memberOf(db, who.technicianId)
  if (!member) throw notFound('technician')
  const day = input.day ?? DateTime.fromJSDate(now, { zone: member.zone }).toISODate()!
  await send(response, await dayOf(db, member, day, service, now), `my-day-${day}`)
})

/** Whoever scans the code of a sheet comes to their own visit, or to the Sheet where they are at the desk. */
export const findJob = query(contract.findJob, async ({ db, who, input }) => {
  const [order] = await db.select().from(orders).where(eq(orders.id, input.id))
  if (!order) throw notFound('order')
  const mine =
    who.technicianId !== null && SEEN_IN_FIELD.includes(order.state)
      ? await db
          .select({ id: visits.id })
          .from(visits)
          .where(and(eq(visits.orderId, order.id), eq(visits.technicianId, who.technicianId), ne(visits.state, 'recalled')))
          .orderBy(asc(visits.plannedStart))
      : []
  if (mine.length) return { address: `/rounds/${mine.at(-1)!.id}` }
  if (canAt(who, 'desk.read', order.siteId)) return { address: `/desk/${stationOf(order.state)}/order/${order.id}` }
  throw notFound('order')
})
