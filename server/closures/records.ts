import { and, eq } from 'drizzle-orm'
import { endedSooner } from '#core/closures'
import { tellOtherwise } from '#server/help/records'
import { recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { closures, places } from '../tables'

type ClosureRecord = typeof closures.$inferSelect
type Fields = Partial<Pick<ClosureRecord, 'fromAt' | 'untilAt' | 'plannedUntilAt' | 'state' | 'affects'>>

/** A closure as it is from now on: the bookings system is told of it next, and what is said at the Counter goes along. @param closure locked */
export async function keepClosure(tx: Tx, closure: ClosureRecord, fields: Fields, now: Date): Promise<void> {
  const told = closure.told === 'none' ? {} : { told: 'waiting' as const, tryAt: now, attempts: 0, problem: null }
  await tx
    .update(closures)
    .set({ ...fields, ...told, version: closure.version + 1 })
    .where(eq(closures.id, closure.id))
  if (closure.bulletinId === null) return
  const { fromAt, untilAt, state } = { ...closure, ...fields }
  await tellOtherwise(tx, closure.bulletinId, state === 'called_off' ? 'withdrawn' : { startsAt: fromAt, endsAt: untilAt }, now)
}

/** The work is done or given up: what is out of use for it is given back now, and what had not begun is called off. */
export async function endClosures(
  tx: Tx,
  by: Pick<Asker, 'accountId' | 'name'>,
  { id: orderId, siteId }: { id: number; siteId: number },
  now: Date,
): Promise<void> {
  const rows = await tx
    .select()
    .from(closures)
    .where(and(eq(closures.orderId, orderId), eq(closures.state, 'kept')))
    .for('update')
  for (const closure of rows) {
    const sooner = endedSooner({ state: closure.state, from: closure.fromAt, until: closure.untilAt }, now)
    if (sooner) await endClosure(tx, by, closure, sooner, siteId, now)
  }
}

/** @param sooner from `endedSooner` */
export async function endClosure(
  tx: Tx,
  by: Pick<Asker, 'accountId' | 'name'>,
  closure: ClosureRecord,
  sooner: { state: ClosureRecord['state']; until: Date },
  siteId: number,
  now: Date,
): Promise<void> {
  const [place] = await tx.select({ code: places.code, name: places.name }).from(places).where(eq(places.id, closure.placeId))
  const calledOff = sooner.state === 'called_off'
  await keepClosure(
    tx,
    closure,
    calledOff ? { state: sooner.state } : { untilAt: sooner.until, plannedUntilAt: closure.plannedUntilAt ?? closure.untilAt },
    now,
  )
  const of = { siteId, orderId: closure.orderId, register: 'places' as const, recordId: closure.placeId }
  const facts = { closureId: closure.id, space: `${place!.code} ${place!.name}` }
  if (calledOff) await recordEvent(tx, by, now, { kind: 'closure.callOff', ...of, details: facts })
  else await recordEvent(tx, by, now, { kind: 'closure.end', ...of, details: { ...facts, until: sooner.until.toISOString() } })
}
