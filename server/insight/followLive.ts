import { and, asc, eq, gt, inArray, isNotNull, ne } from 'drizzle-orm'
import * as contract from '#contract/insight'
import type { LiveChange } from '#contract/insight'
import { SEEN_IN_FIELD } from '#core/orders'
import { mayAt } from '#core/people'
import { acting, askerOf, canAt, delivery, SESSION_COOKIE } from '#server/kit'
import type { Asker, Db, PublishedEvent, SeenSheet } from '#server/kit'
import { EVENT_KINDS, eventRule } from '#core/events'
import { events, orders, visits } from '../tables'

/** Further behind than this, a screen reads everything anew rather than change by change. */
const MOST_MISSED = 500
const HEARTBEAT_MS = 15_000
/** Who listens is asked again at least so often, whatever is told. */
const ASK_AGAIN_MS = 30_000
/** What may change who somebody is or what they may hear. */
const ASK_AGAIN_AT = new Set(EVENT_KINDS.filter((kind) => eventRule(kind).changesWho))
/** An order that leaves the list of those who were sent: they hear that something changed, and no more of it. */
const TAKEN_FROM = new Set(EVENT_KINDS.filter((kind) => eventRule(kind).takesJob))

/** What concerns one technician alone. */
const FOR_TECHNICIAN = new Set(EVENT_KINDS.filter((kind) => eventRule(kind).forTechnician))

type Heard = Pick<PublishedEvent, 'seq' | 'kind' | 'siteId' | 'requestId' | 'orderId' | 'visitId' | 'register' | 'recordId' | 'actorName' | 'details'>

/**
 * Server-sent events of what this person may see. A line that dropped resumes after the last event
 * it saw: first what was missed, from the table, then what comes, with nothing between them lost. The line
 * ends with the session it was opened by.
 */
export default delivery(contract.followLive, async ({ db, who: opener, input, service, request, response }) => {
  const resumed = request.get('Last-Event-ID')
  const from = resumed && /^\d{1,15}$/.test(resumed) ? Number(resumed) : input.after
  const token = (request.cookies as Record<string, string>)[SESSION_COOKIE]!
  response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform', 'X-Accel-Buffering': 'no' })
  let who = opener
  let sent = from ?? 0
  const waiting: Heard[] = []
  let caughtUp = false
  /** Who listens, as they stand now; nobody, and the line ends. */
  const askAgain = async (): Promise<boolean> => {
    const now = await askerOf(db, token, service.clock())
    if (!now) {
      response.end()
      return false
    }
    who = acting(now, 'self.read')
    return true
  }
  const send = async (event: Heard) => {
    if (event.seq <= sent || response.writableEnded) return
    if (ASK_AGAIN_AT.has(event.kind) && !(await askAgain())) return
    sent = event.seq
    const change = await heardBy(db, who, event)
    response.write(change ? `id: ${event.seq}\ndata: ${JSON.stringify(change)}\n\n` : `id: ${event.seq}\n\n`)
  }
  let chain: Promise<unknown> = Promise.resolve()
  const next = (work: () => Promise<unknown>) => (chain = chain.then(work).catch(() => response.end()))
  const hear = (event: PublishedEvent) => {
    if (caughtUp) void next(() => send(event))
    else waiting.push(event)
  }
  // Who else has a Sheet open is of the moment: it is told to those who are there and never made up for.
  const seePresence = ({ siteId, ...sheet }: SeenSheet) => {
    if (canAt(who, 'desk.read', siteId) && !response.writableEnded) response.write(`event: presence\ndata: ${JSON.stringify(sheet)}\n\n`)
  }
  service.publisher.published.on('event', hear)
  service.publisher.published.on('presence', seePresence)
  const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS)
  // A database that is away for a moment ends no line; the next look asks again.
  const asking = setInterval(() => next(() => askAgain().catch(() => true)), ASK_AGAIN_MS)
  const close = () => {
    clearInterval(heartbeat)
    clearInterval(asking)
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
  return {
    seq: event.seq,
    kind: event.kind,
    requestId: event.requestId,
    orderId: event.orderId,
    visitId: event.visitId,
    register: event.register,
    recordId: event.recordId,
    who: event.actorName,
  }
}

/** What this person hears of an event. The Desk hears of its sites; a technician of approved orders they are sent to, and that a job was taken from them. */
async function heardBy(db: Db, who: Asker, event: Heard): Promise<LiveChange | null> {
  const desk = event.siteId === null ? who.grants.some((grant) => mayAt([grant], 'desk.read', grant.siteId ?? 0)) : canAt(who, 'desk.read', event.siteId)
  if (desk) return toChange(event)
  if (!who.technicianId) return null
  if (FOR_TECHNICIAN.has(event.kind) && event.details?.technicianId === who.technicianId) return bare(event, event.kind)
  if (!event.orderId) return null
  if (await isSent(db, who.technicianId, event.orderId)) return toChange(event)
  const taken = TAKEN_FROM.has(event.kind) && (event.details?.taken as number[] | undefined)?.includes(who.technicianId)
  return taken ? bare(event, 'field.taken') : null
}

/** That something happened, and who did it. */
const bare = ({ seq, actorName }: Heard, kind: LiveChange['kind']): LiveChange => ({
  seq,
  kind,
  requestId: null,
  orderId: null,
  visitId: null,
  register: null,
  recordId: null,
  who: actorName,
})

async function isSent(db: Db, technicianId: number, orderId: number): Promise<boolean> {
  const [mine] = await db
    .select({ id: visits.id })
    .from(visits)
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(
      and(eq(visits.orderId, orderId), eq(visits.technicianId, technicianId), ne(visits.state, 'recalled'), inArray(orders.state, [...SEEN_IN_FIELD, 'ready'])),
    )
    .limit(1)
  return mine !== undefined
}
