import { DateTime } from 'luxon'
import type { RecordCell } from '#contract/lists'
import type { OrderLine } from '#contract/orders'
import type { RequestLine } from '#contract/requests'
import type { ListField } from '#core/lists'
import { HOLD_REASON_NAMES, ORDER_KIND_NAMES, ORDER_STATE_NAMES, standingAt } from '#core/orders'
import { CHANNEL_NAMES, PRIORITY_NAMES, REQUEST_STATE_NAMES } from '#core/requests'
import type { Outgoing } from '#server/kit'
import type { AnyLine } from './sources'

/** What stands in a cell: text, an amount in whole units, an instant, or nothing. */
export type Cell = string | number | Date | null

type Line = Outgoing<OrderLine> | Outgoing<RequestLine>

const STANDINGS = { on_time: 'On time', close: 'Close to target', past: 'Past target' }

/** The cell of a column. Choices are told by their names, money in units of the currency, shares in per cent. */
export function cellOf(line: AnyLine, field: ListField, now: Date): Cell {
  if (field.own && 'own' in line) return recordCell((line.own[field.name] ?? null) as RecordCell, field)
  return 'cells' in line ? recordCell((line.cells[field.name] ?? null) as RecordCell, field) : workCell(line, field.name, now)
}

function recordCell(value: RecordCell, { shape, choices }: ListField): Cell {
  if (value === null) return null
  if (typeof value === 'boolean') return value ? 'Yes' : 'No'
  if (choices) return choices[String(value)] ?? String(value)
  if (shape === 'money' || shape === 'percent') return Number(value) / 100
  return value
}

function workCell(line: Line, column: string, now: Date): Cell {
  const value = (line as Record<string, unknown>)[column]
  if (column === 'state') return 'heldFrom' in line ? ORDER_STATE_NAMES[line.state] : REQUEST_STATE_NAMES[line.state]
  if (column === 'standing') return STANDINGS[standingOf(line, now)]
  if (column === 'estimate') return typeof value === 'number' ? value / 100 : null
  if (column === 'place') return line.place ? `${line.place} ${line.placeName ?? ''}`.trim() : null
  const names: Record<string, Record<string, string>> = { priority: PRIORITY_NAMES, kind: ORDER_KIND_NAMES, hold: HOLD_REASON_NAMES, channel: CHANNEL_NAMES }
  if (names[column]) return value ? names[column][value as string]! : null
  return (value as Cell | undefined) ?? null
}

function standingOf({ target }: Line, now: Date) {
  const at = (instant: string | Date | null) => (instant === null ? null : new Date(instant))
  return standingAt({ closeAt: at(target.closeAt)!, completionDueAt: at(target.completionDueAt)! }, at(target.finishedAt) ?? at(target.stoppedAt) ?? now)
}

/** An instant as the clock on the wall shows it, for a table that knows no zones. */
export const wallClock = (at: Date, zone: string): string => DateTime.fromJSDate(at, { zone }).toFormat('yyyy-LL-dd HH:mm')

/** The same as a date whose UTC reading is the wall clock: what a workbook keeps. */
export const wallDate = (at: Date, zone: string): Date => DateTime.fromJSDate(at, { zone }).setZone('utc', { keepLocalTime: true }).toJSDate()
