import { and, gte, inArray, isNotNull, isNull, like, lt, lte, not, notInArray, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { calendarDay, endOfDay, startOfDay } from '#core/lists'
import type { Clause } from '#core/lists'
import { likeText, standsLike } from '#server/kit'
import type { TargetStanding } from '#core/orders'
import { places } from '../tables'
import type { Standpoint } from './standpoint'

/** What a clause asks of the rows, as SQL. */
export type Condition = (clause: Clause, from: Standpoint) => SQL | undefined

/** A column that holds the value itself or an id. */
export const byValue =
  (column: MySqlColumn): Condition =>
  (clause, from) => {
    if (clause.empty !== undefined) return clause.empty ? isNull(column) : isNotNull(column)
    const values = clause.any!.map((value) => meant(value, from))
    // What is empty is none of them.
    return clause.not ? or(isNull(column), notInArray(column, values)) : inArray(column, values)
  }

/** `me` and `mine` are the person asking and their team; nobody’s team matches nothing. */
function meant(value: string, from: Standpoint): string | number {
  if (value === 'me') return from.accountId
  if (value === 'mine') return from.teamId ?? -1
  return value
}

/** The place itself and everything in it. */
export const byPlace =
  (column: MySqlColumn): Condition =>
  (clause) => {
    if (clause.empty !== undefined) return clause.empty ? isNull(column) : isNotNull(column)
    const inside = insidePlaces(column, clause.any!.map(Number))
    return clause.not ? or(isNull(column), not(inside)) : inside
  }

/** Rows whose place is one of these, or anywhere in one of them. */
export const insidePlaces = (column: MySqlColumn, ids: number[]): SQL => sql`${column} in (
  select inside.id from ${places} inside join ${places} around on inside.path like concat(around.path, '%')
  where around.id in ${ids})`

export const byText =
  (...columns: MySqlColumn[]): Condition =>
  (clause) => {
    if (clause.empty !== undefined) return clause.empty ? and(...columns.map((column) => isNull(column))) : or(...columns.map((column) => isNotNull(column)))
    const found = or(...columns.map((column) => like(column, `%${likeText(clause.any![0]!)}%`)))!
    return clause.not ? sql`coalesce(not ${found}, true)` : found
  }

export const byDay =
  (column: MySqlColumn): Condition =>
  (clause, { now, zone }) => {
    if (clause.empty !== undefined) return clause.empty ? isNull(column) : isNotNull(column)
    return and(
      clause.from ? gte(column, startOfDay(clause.from, now, zone)) : undefined,
      clause.to ? lt(column, endOfDay(clause.to, now, zone)) : undefined,
      clause.from ? undefined : isNotNull(column),
    )
  }

/** A column of days that are written as such. */
export const byDate =
  (column: MySqlColumn): Condition =>
  (clause, { now, zone }) => {
    if (clause.empty !== undefined) return clause.empty ? isNull(column) : isNotNull(column)
    return and(
      isNotNull(column),
      clause.from ? gte(column, calendarDay(clause.from, now, zone)) : undefined,
      clause.to ? lte(column, calendarDay(clause.to, now, zone)) : undefined,
    )
  }

/** A span of whole numbers: money in minor units, counts, basis points. */
export const byAmount =
  (column: MySqlColumn): Condition =>
  (clause) => {
    if (clause.empty !== undefined) return clause.empty ? isNull(column) : isNotNull(column)
    return and(clause.from ? gte(column, Number(clause.from)) : undefined, clause.to ? sql`${column} <= ${Number(clause.to)}` : undefined)
  }

/** A field that is so or not. */
export const byFlag =
  (so: (from: Standpoint) => SQL): Condition =>
  (clause, from) =>
    clause.any![0] === 'yes' ? so(from) : not(so(from))

/** Rows for which another table holds something: given the ids looked for, or none for any at all. */
export const byOther =
  (exists: (ids: number[] | null) => SQL): Condition =>
  (clause) => {
    if (clause.empty !== undefined) return clause.empty ? not(exists(null)) : exists(null)
    const found = exists(clause.any!.map(Number))
    return clause.not ? not(found) : found
  }

/** How a promise stands: at the moment the work ended or the clock was stopped, otherwise now; compared as core does. */
export const byStanding =
  (columns: { closeAt: MySqlColumn; completionDueAt: MySqlColumn; at: (now: Date) => SQL }): Condition =>
  (clause, { now }) => {
    const at = columns.at(now)
    const found = or(...clause.any!.map((value) => standsLike(value as TargetStanding, at, columns)))!
    if (clause.not) return not(found)
    // No promise is past before its instant: said apart, so that an index on it serves.
    return clause.any!.join() === 'past' ? and(lt(columns.completionDueAt, now), found) : found
  }

/** Everything a list asks for; `other` is for what has no condition of its own. */
export function allConditions(
  conditions: Record<string, Condition>,
  clauses: Clause[],
  from: Standpoint,
  other: (clause: Clause) => SQL | undefined = () => undefined,
): SQL | undefined {
  return and(...clauses.map((clause) => conditions[clause.field]?.(clause, from) ?? other(clause)))
}
