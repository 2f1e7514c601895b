import { eq } from 'drizzle-orm'
import * as contract from '#contract/spots'
import { moveOrder } from '#core/orders'
import { refuse } from '#core/kit'
import { momentFor, switchStintOf } from '#server/field'
import { addVisit } from '#server/dispatch/records'
import { command, nobody } from '#server/kit'
import type { Tx } from '#server/kit'
import { factsOf, lockOrderById, rulesOf, saveMove } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { payersAlong } from '#server/places'
import { beginHere } from '#server/requests'
import { technicians, visits } from '../tables'
import { whyNotStart } from './readSpot'
import { requestHere } from './report'
import { knownSpot, siteOf } from './where'

/** How long a visit that nobody planned is taken to last (our own choice, no source). */
const LASTS_MS = 3_600_000

/** Request, order, visit and clock in one act: small work, where the site lets it be started by whoever stands there. */
export default command(contract.startHere, async ({ tx, who, input, now, service }) => {
  const site = await siteOf(tx, who)
  const [technician] = await tx
    .select()
    .from(technicians)
    .where(eq(technicians.id, who.technicianId ?? -1))
  if (!technician) refuse('no_technician', 'Only technicians start work. Report it instead.')
  const { at, actor } = momentFor(who, input.happenedAt, now)
  const spot = await knownSpot(tx, site, input)
  const { onSpotMinor } = (await rulesOf(tx, site.id)).planning
  const payerId = spot.asset?.payerId ?? (await payersAlong(tx, [spot.place.path]))(spot.place.path)?.id ?? null
  const why = whyNotStart(spot, onSpotMinor, payerId)
  if (why) refuse('not_on_spot', why)
  const request = await requestHere({ tx, service, site, actor, at }, input)
  const begun = await beginHere(tx, who, at, {
    requestId: request.id,
    priority: 'routine',
    payerId,
    teamId: technician.teamId,
    // What is planned on it beyond that is agreed to before anybody is sent once more.
    estimateMinor: onSpotMinor!,
  })
  const order = await locked(tx, begun.id)
  const visitId = await addVisit(tx, order, { technicianId: technician.id, plannedStart: at, plannedEnd: new Date(at.getTime() + LASTS_MS) })
  const to = moveOrder(await factsOf(tx, order, nobody, now), 'begin', null)
  await saveMove(tx, actor, at, order, 'begin', to, null, { respondedAt: at })
  const [visit] = await tx.select().from(visits).where(eq(visits.id, visitId))
  await switchStintOf(tx, actor, await locked(tx, order.id), visit!, 'work', at)
  return { visitId, number: order.number }
})

const locked = async (tx: Tx, id: number): Promise<OrderRecord> => (await lockOrderById(tx, id))!
