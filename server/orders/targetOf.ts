import { and, eq } from 'drizzle-orm'
import type { GaugeTarget } from '#contract/kit'
import { resumeTarget, setTarget, stopTarget, targetState } from '#core/orders'
import type { Target, TargetRule } from '#core/orders'
import type { Priority } from '#core/requests'
import type { Outgoing, Reader } from '#server/kit'
import type { WorkCalendar } from '#core/kit'
import { orders, settings, sites, targetExceptions, targetRules } from '../tables'
import type { OrderRecord } from './orderRecord'
import { STOPPING_HOLDS } from './promises'

type TargetColumns = Pick<OrderRecord, 'targetClock' | 'targetStartAt' | 'responseDueAt' | 'closeAt' | 'completionDueAt' | 'clockStoppedAt'>

/** What a gauge is drawn from. */
export const TARGET_COLUMNS = {
  targetClock: orders.targetClock,
  targetStartAt: orders.targetStartAt,
  responseDueAt: orders.responseDueAt,
  closeAt: orders.closeAt,
  completionDueAt: orders.completionDueAt,
  clockStoppedAt: orders.clockStoppedAt,
  finishedAt: orders.finishedAt,
}

/** What a priority promises at a site, or for one category of it. */
export async function promiseRule(db: Reader, siteId: number, priority: Priority, categoryId: number | null): Promise<TargetRule> {
  const [exception] = categoryId
    ? await db
        .select()
        .from(targetExceptions)
        .where(and(eq(targetExceptions.siteId, siteId), eq(targetExceptions.categoryId, categoryId), eq(targetExceptions.priority, priority)))
    : []
  if (exception) return exception
  const [usual] = await db
    .select()
    .from(targetRules)
    .where(and(eq(targetRules.siteId, siteId), eq(targetRules.priority, priority)))
  if (!usual) throw new Error(`No target rule for ${priority} at site ${siteId}.`)
  return usual
}

/** The promise for a priority at a site, or for one category of it, counted from `start`, as columns of an order. */
export async function promiseFor(db: Reader, siteId: number, priority: Priority, start: Date, categoryId: number | null = null): Promise<TargetColumns> {
  return toColumns(setTarget(await promiseRule(db, siteId, priority, categoryId), start, await calendarOf(db, siteId)))
}

/** A promise of so many days by the calendar, answered as soon as the priority promises. */
export async function dueIn(db: Reader, siteId: number, priority: Priority, start: Date, categoryId: number | null, days: number): Promise<TargetColumns> {
  const { responseMinutes } = await promiseRule(db, siteId, priority, categoryId)
  const completionMinutes = days * 1_440
  const rule: TargetRule = { clock: 'continuous', responseMinutes: Math.min(responseMinutes, completionMinutes), completionMinutes }
  return toColumns(setTarget(rule, start, await calendarOf(db, siteId)))
}

/** Columns after a hold that stops the clock, or after one that does not. */
export async function heldTarget(db: Reader, order: OrderRecord, reason: string, now: Date): Promise<Partial<TargetColumns>> {
  const stops = await holdsThatStop(db)
  return stops.includes(reason) ? toColumns(stopTarget(fromColumns(order), now)) : {}
}

export async function resumedTarget(db: Reader, order: OrderRecord, now: Date): Promise<Partial<TargetColumns>> {
  if (!order.clockStoppedAt) return {}
  return toColumns(resumeTarget(fromColumns(order), now, await calendarOf(db, order.siteId)))
}

/** The hold reasons for which waiting is not our lateness. */
export async function holdsThatStop(db: Reader): Promise<string[]> {
  const [row] = await db.select().from(settings).where(eq(settings.name, STOPPING_HOLDS))
  return (row?.value as string[] | undefined) ?? ['part', 'access', 'weather']
}

export function gaugeOf(order: OrderRecord, calendar: WorkCalendar, now: Date) {
  return targetState(fromColumns(order), order.finishedAt, now, calendar)
}

export function gaugeTarget(order: TargetColumns & { finishedAt: Date | null }): Outgoing<GaugeTarget> {
  return {
    clock: order.targetClock,
    startAt: order.targetStartAt,
    responseDueAt: order.responseDueAt,
    closeAt: order.closeAt,
    completionDueAt: order.completionDueAt,
    stoppedAt: order.clockStoppedAt,
    finishedAt: order.finishedAt,
  }
}

/** When a site works. */
export async function calendarOf(db: Reader, siteId: number) {
  const [site] = await db.select({ calendar: sites.calendar }).from(sites).where(eq(sites.id, siteId))
  return site!.calendar
}

function fromColumns(order: TargetColumns): Target {
  return {
    clock: order.targetClock,
    startAt: order.targetStartAt,
    responseDueAt: order.responseDueAt,
    closeAt: order.closeAt,
    completionDueAt: order.completionDueAt,
    stoppedAt: order.clockStoppedAt,
  }
}

export function toColumns(target: Target): TargetColumns {
  return {
    targetClock: target.clock,
    targetStartAt: target.startAt,
    responseDueAt: target.responseDueAt,
    closeAt: target.closeAt,
    completionDueAt: target.completionDueAt,
    clockStoppedAt: target.stoppedAt,
  }
}
