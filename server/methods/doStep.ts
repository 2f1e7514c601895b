import { and, asc, desc, eq, inArray, isNull, ne, notInArray, or } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import * as contract from '#contract/methods'
import type { StepToDo } from '#contract/methods'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { refuse, Refusal } from '#core/kit'
import { readStep, stepWaits } from '#core/methods'
import { isSettled, OVER_STATES, SEEN_IN_FIELD } from '#core/orders'
import { canAt, command, conflict, maySee, notAllowed, notFound, preparedCommand, query, readPicture, recordEvent } from '#server/kit'
import type { Actor, Asker, Outgoing, Picture, Reader, Tx } from '#server/kit'
import { keepPhoto, momentFor, myVisit } from '#server/field'
import type { OnSite } from '#server/field'
import { lockOrderById } from '#server/orders'
import { dropUpload, readUpload } from '#server/uploads'
import type { OrderRecord } from '#server/orders'
import { accounts, orders, orderSteps, people, places, visits } from '../tables'
import { namesOf, stepRow } from './orderPlan'
import type { StepRecord } from './orderPlan'

const MOST = 100

/** What was given to somebody: of orders they may know of, those that are open first. */
export const listMySteps = query(contract.listMySteps, async ({ db, who, input }) => {
  if (who.accountId === null) return { rows: [] }
  const mine = and(eq(orderSteps.assigneeId, who.accountId), knownTo(who))
  const where = input.done ? and(mine, ne(orderSteps.state, 'open')) : and(mine, eq(orderSteps.state, 'open'), notInArray(orders.state, OVER_STATES))
  return { rows: await stepsToDo(db, where, input.done ? desc(orderSteps.doneAt) : asc(orders.completionDueAt)) }
})

/** Who works in the field alone knows of orders once they are approved. */
const knownTo = (who: Asker): SQL | undefined =>
  and(isNull(orders.discardedAt), who.grants.every(({ role }) => role === 'technician') ? inArray(orders.state, ['ready', ...SEEN_IN_FIELD]) : undefined)

export const listJobSteps = query(contract.listJobSteps, async ({ db, who, input }) => {
  const { order } = await myVisit(db, who, input.visitId)
  return { rows: await stepsToDo(db, eq(orderSteps.orderId, order.id), asc(orderSteps.position)) }
})

async function stepsToDo(db: Reader, where: SQL | undefined, order: SQL): Promise<Outgoing<StepToDo>[]> {
  const rows = await db
    .select({
      step: orderSteps,
      order: { id: orders.id, number: orders.number, summary: orders.summary, state: orders.state, priority: orders.priority },
      placeCode: places.code,
      placeName: places.name,
      assigneeName: people.name,
    })
    .from(orderSteps)
    .innerJoin(orders, eq(orders.id, orderSteps.orderId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(accounts, eq(accounts.id, orderSteps.assigneeId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .where(where)
    .orderBy(order, asc(orderSteps.position))
    .limit(MOST)
  const waiting = rows.flatMap(({ step }) => step.afterId ?? [])
  const before = waiting.length
    ? await db
        .select({ id: orderSteps.id, text: orderSteps.text })
        .from(orderSteps)
        .where(and(inArray(orderSteps.id, waiting), eq(orderSteps.state, 'open')))
    : []
  const names = await namesOf(
    db,
    rows.flatMap(({ step }) => step.doneBy ?? []),
  )
  return rows.map(({ step, order: of, placeCode, placeName, assigneeName }) => ({
    ...stepRow(step, step.assigneeId === null ? null : { id: step.assigneeId, name: assigneeName ?? '' }, names),
    order: { ...of, place: placeCode ? `${placeCode} ${placeName ?? ''}`.trim() : null },
    waitsFor: before.find(({ id }) => id === step.afterId)?.text ?? null,
  }))
}

async function stepToDo(db: Reader, id: number): Promise<Outgoing<StepToDo>> {
  return (await stepsToDo(db, eq(orderSteps.id, id), asc(orderSteps.id)))[0]!
}

/**
 * The step, its order locked, for whoever does it: it was given to them, they are on the job, or they keep the order.
 * @throws ProblemReply 404 for what is not theirs to know of, 403 when it is not theirs to do, 409 when it was changed since
 */
async function lockMine(tx: Tx, who: Asker, id: number, version: number | null): Promise<Locked> {
  const { step: seen } = await mineToDo(tx, who, id)
  const order = (await lockOrderById(tx, seen.orderId))!
  const [step] = await tx.select().from(orderSteps).where(eq(orderSteps.id, id)).for('update')
  if (!step) throw notFound('step')
  if (version !== null && step.version !== version) throw conflict(step.version, [{ field: 'state', theirs: step.state, yours: null }])
  if (isSettled(order.state) || order.discardedAt) throw new Refusal([{ code: 'over', sentence: 'The order is over: its steps stay as they are.' }])
  return { step, order }
}

async function mineToDo(db: Reader, who: Asker, id: number): Promise<Locked> {
  const [found] = await db
    .select({ step: orderSteps, order: orders })
    .from(orderSteps)
    .innerJoin(orders, eq(orders.id, orderSteps.orderId))
    .where(eq(orderSteps.id, id))
  if (!found) throw notFound('step')
  const { step, order } = found
  if (canAt(who, 'orders.edit', order.siteId)) return found
  const given = who.accountId !== null && step.assigneeId === who.accountId
  if (
    given &&
    (
      await db
        .select({ id: orders.id })
        .from(orders)
        .where(and(eq(orders.id, order.id), knownTo(who)))
    ).length
  )
    return found
  if (who.technicianId !== null && SEEN_IN_FIELD.includes(order.state)) {
    const [visit] = await db
      .select({ id: visits.id })
      .from(visits)
      .where(
        and(eq(visits.orderId, order.id), eq(visits.technicianId, who.technicianId), or(inArray(visits.state, LIVE_VISIT_STATES), eq(visits.state, 'ended'))),
      )
    if (visit) return found
  }
  throw maySee(who, order.siteId) && canAt(who, 'desk.read', order.siteId) ? notAllowed() : notFound('step')
}

export const doStep = command(contract.doStep, async ({ tx, who, input, now }) => {
  const { id, version, value, note, leave = false } = input
  const { at, actor } = momentFor(who, input.happenedAt, now)
  const { step, order } = await lockMine(tx, who, id, version)
  return finishStep({ tx, actor, at }, { step, order }, { value, note, leave })
})

/** Whoever does it, and when. */
interface Doing {
  tx: Tx
  actor: Actor
  at: Date
}
interface Locked {
  step: StepRecord
  order: OrderRecord
}

/** @param said what was measured or chosen, or why it is left out @throws Refusal for what it still asks for */
async function finishStep({ tx, actor, at }: Doing, { step, order }: Locked, { value, note, leave }: { value?: string; note?: string; leave: boolean }) {
  if (step.state !== 'open') throw new Refusal([{ code: 'done', sentence: 'It is done already.' }])
  if (leave && !note) throw new Refusal([{ code: 'reason_missing', sentence: 'Say why it is left out.', field: 'note' }])
  const all = await tx.select().from(orderSteps).where(eq(orderSteps.orderId, order.id))
  const waits = leave ? [] : stepWaits(step, all)
  if (waits.length) throw new Refusal(waits)
  const read = leave ? { value: null, outside: false } : readStep(step, { value: value || null, hasPhoto: step.photoId !== null })
  if ('reasons' in read) throw new Refusal(read.reasons)
  await tx
    .update(orderSteps)
    .set({
      ...{ state: leave ? 'left' : 'done', ...read, note: note || null, doneBy: actor.accountId, doneAt: at, version: step.version + 1 },
      doneByName: actor.accountId === null ? actor.name : null,
    })
    .where(eq(orderSteps.id, step.id))
  const said = read.value === null ? null : [read.value, step.kind === 'measured' ? step.unit : null].filter(Boolean).join(' ')
  await recordEvent(tx, actor, at, {
    kind: 'step.do',
    siteId: order.siteId,
    orderId: order.id,
    reason: note || null,
    details: { step: step.text, stepId: step.id, value: said, outside: read.outside, left: leave },
  })
  return stepToDo(tx, step.id)
}

export const undoStep = command(contract.undoStep, async ({ tx, who, input, now }) => {
  const { at, actor } = momentFor(who, input.happenedAt, now)
  return reopenStep({ tx, actor, at }, await lockMine(tx, who, input.id, input.version))
})

async function reopenStep({ tx, actor, at }: Doing, { step, order }: Locked) {
  if (step.state === 'open') throw new Refusal([{ code: 'open', sentence: 'It is open already.' }])
  await tx
    .update(orderSteps)
    .set({ state: 'open', value: null, outside: false, note: null, doneBy: null, doneByName: null, doneAt: null, version: step.version + 1 })
    .where(eq(orderSteps.id, step.id))
  await recordEvent(tx, actor, at, { kind: 'step.undo', siteId: order.siteId, orderId: order.id, details: { step: step.text, stepId: step.id } })
  return stepToDo(tx, step.id)
}

export const addStepPhoto = preparedCommand(
  contract.addStepPhoto,
  ({ request }) => readPicture(request.file),
  ({ tx, who, input, ready, now }) => addPhoto(tx, who, input, ready, now),
  ({ db, who, input }) => mineToDo(db, who, input.id),
)

export const addSentStepPhoto = preparedCommand(
  contract.addSentStepPhoto,
  async ({ service, who, input }) => {
    const sent = await readUpload(service.db, who, input)
    return sent && readPicture(sent)
  },
  async ({ tx, who, input, ready, now }) => {
    if (!ready) refuse('upload_gone', 'The photo is not there any more. Send it again.', 'upload')
    const step = await addPhoto(tx, who, input, ready, now)
    await dropUpload(tx, input.upload)
    return step
  },
)

async function addPhoto(tx: Tx, who: Asker, { id, happenedAt }: { id: number; happenedAt?: string }, picture: Picture, now: Date): Promise<Outgoing<StepToDo>> {
  return picturedStep({ tx, ...momentFor(who, happenedAt, now) }, await lockMine(tx, who, id, null), picture, null)
}

/** @param visit whose photo it is, where they have no account */
async function picturedStep({ tx, at }: Doing, { step, order }: Locked, picture: Picture, visit: OnSite['visit'] | null): Promise<Outgoing<StepToDo>> {
  if (step.state !== 'open') throw new Refusal([{ code: 'done', sentence: 'It is done already: take that back first.' }])
  const photoId = await keepPhoto(tx, order, visit, picture, at)
  await tx
    .update(orderSteps)
    .set({ photoId, version: step.version + 1 })
    .where(eq(orderSteps.id, step.id))
  return stepToDo(tx, step.id)
}

/** The steps of an order, for whoever is on it. */
export const stepsOnSite = (db: Reader, orderId: number) => stepsToDo(db, eq(orderSteps.orderId, orderId), asc(orderSteps.position))

/** A step of the job one is on by a pass, that is nobody’s by name. @throws ProblemReply 404, 403, 409 */
async function lockOnSite({ tx, order }: OnSite, id: number, version: number | null): Promise<Locked> {
  const [step] = await tx
    .select()
    .from(orderSteps)
    .where(and(eq(orderSteps.id, id), eq(orderSteps.orderId, order.id)))
    .for('update')
  if (!step) throw notFound('step')
  if (step.assigneeId !== null) throw notAllowed()
  if (version !== null && step.version !== version) throw conflict(step.version, [{ field: 'state', theirs: step.state, yours: null }])
  if (isSettled(order.state)) throw new Refusal([{ code: 'over', sentence: 'The order is over: its steps stay as they are.' }])
  return { step, order }
}

interface OfStep {
  id: number
  version: number
}
export const doStepOnSite = async (site: OnSite, { id, version, value, note, leave = false }: OfStep & { value?: string; note?: string; leave?: boolean }) =>
  finishStep(site, await lockOnSite(site, id, version), { value, note, leave })
export const undoStepOnSite = async (site: OnSite, { id, version }: OfStep) => reopenStep(site, await lockOnSite(site, id, version))
export const pictureStepOnSite = async (site: OnSite, id: number, picture: Picture) => picturedStep(site, await lockOnSite(site, id, null), picture, site.visit)
