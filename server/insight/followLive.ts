import { and, asc, eq, gt, inArray, isNotNull } from 'drizzle-orm'
import * as contract from '#contract/insight'
import type { LiveChange } from '#contract/insight'
import { SEEN_IN_FIELD } from '#core/orders'
import { can, delivery, maySee } from '#server/kit'
import type { Asker, Db, OpenSheet, PublishedEvent } from '#server/kit'
import { events, orders, visits } from '../tables'

/** Further behind than this, a screen reads everything anew rather than change by change. */
const MOST_MISSED = 500
const HEARTBEAT_MS = 15_000

type Heard = Pick<PublishedEvent, 'seq' | 'kind' | 'siteId' | 'requestId' | 'orderId' | 'visitId' | 'actorName' | 'details'>

/**
 * Server-sent events of what this person may see. A line that dropped resumes after the last event
 * it saw: first what was missed, from the table, then what comes, with nothing between them lost.
 */
export default delivery(contract.followLive, async ({ db, who, input, service, request, response }) => {
  const resumed = request.get('Last-Event-ID')
  const from = resumed && /^\d+$/.test(resumed) ? Number(resumed) : input.after
  response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform', 'X-Accel-Buffering': 'no' })
  let sent = from ?? 0
  const waiting: Heard[] = []
  let caughtUp = false
  const send = async (event: Heard) => {
    if (event.seq <= sent) return
    sent = event.seq
    if (await mayHear(db, who, event)) response.write(`id: ${event.seq}\ndata: ${JSON.stringify(toChange(event))}\n\n`)
    else response.write(`id: ${event.seq}\n\n`)
  }
  let chain: Promise<unknown> = Promise.resolve()
  const hear = (event: PublishedEvent) => {
    if (caughtUp) chain = chain.then(() => send(event)).catch(() => response.end())
    else waiting.push(event)
  }
  // Who else has a Sheet open is of the moment: it is told to those who are there and never made up for.
  const seePresence = (sheet: OpenSheet) => response.write(`event: presence\ndata: ${JSON.stringify(sheet)}\n\n`)
  service.publisher.published.on('event', hear)
  if (can(who, 'desk.read')) service.publisher.published.on('presence', seePresence)
  const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS)
  const close = () => {
    clearInterval(heartbeat)
    service.publisher.published.off('event', hear)
    service.publisher.published.off('presence', seePresence)
    service.publisher.published.off('stop', close)
    response.end()
  }
  response.on('close', close)
  service.publisher.published.once('stop', close)
  response.write('retry: 1500\n\n')
  if (from !== undefined) {
    const missed = await db
      .select()
      .from(events)
      .where(and(gt(events.seq, from), isNotNull(events.seq)))
      .orderBy(asc(events.seq))
      .limit(MOST_MISSED + 1)
    if (missed.length > MOST_MISSED) response.write('event: reset\ndata: {}\n\n')
    else for (const event of missed) await send(event as PublishedEvent)
  }
  for (const event of waiting) await send(event)
  caughtUp = true
})

function toChange(event: Heard): LiveChange {
  return { seq: event.seq, kind: event.kind, requestId: event.requestId, orderId: event.orderId, visitId: event.visitId, who: event.actorName }
}

/** The Desk hears of its sites; a technician only of approved orders they are sent to. */
async function mayHear(db: Db, who: Asker, event: Heard): Promise<boolean> {
  if (event.siteId !== null && !maySee(who, event.siteId)) return false
  if (can(who, 'desk.read')) return true
  if (!who.technicianId || !event.orderId) return false
  const [mine] = await db
    .select({ id: visits.id })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(and(eq(visits.orderId, event.orderId), eq(visits.technicianId, who.technicianId), inArray(orders.state, [...SEEN_IN_FIELD, 'ready'])))
  return mine !== undefined
}
