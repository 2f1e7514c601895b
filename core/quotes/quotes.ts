import type { Reason } from '#core/kit'

/** A vendor asked for a price: may still answer, named one, gave none, was taken, was not, or need not answer any more. */
export const QUOTE_STATES = ['asked', 'priced', 'declined', 'taken', 'passed_over', 'withdrawn'] as const
export type QuoteState = (typeof QUOTE_STATES)[number]
export const QUOTE_STATE_NAMES: Record<QuoteState, string> = {
  asked: 'Not answered',
  priced: 'Named a price',
  declined: 'Names none',
  taken: 'Taken',
  passed_over: 'Not taken',
  withdrawn: 'Taken back',
}

export const MOST_ASKED = 8
const FURTHEST_DAYS = 366
const DAY_MS = 86_400_000

/** Why vendors cannot be asked to answer by then; empty when they can. */
export function dueReasons(dueAt: Date, now: Date): Reason[] {
  if (dueAt <= now) return [{ code: 'in_the_past', sentence: 'Choose a time that has not passed.', field: 'dueAt' }]
  if (dueAt.getTime() - now.getTime() > FURTHEST_DAYS * DAY_MS) return [{ code: 'too_far', sentence: 'Choose a time within a year.', field: 'dueAt' }]
  return []
}

/** When who was asked is reminded: half-way to when an answer is due. */
export const quoteRemindAt = (askedAt: Date, dueAt: Date): Date => new Date((askedAt.getTime() + dueAt.getTime()) / 2)

/** Why no answer can be given any more; null while one can. A price may be changed until somebody is taken. */
export function whyClosed(state: QuoteState, orderOpen: boolean): string | null {
  if (state === 'taken') return 'Your price was taken. The desk will send you the job.'
  if (state === 'passed_over') return 'The work goes to somebody else this time. Thank you for your price.'
  if (state === 'withdrawn' || !orderOpen) return 'No price is needed any more.'
  return null
}

interface Priced {
  id: number
  netMinor: number | null
  earliestAt: Date | null
  validUntil: string | null
}
/** How prices compare: by what each is above the lowest, and whether it still stands on a day (ISO 8601); the cheapest first. */
export function compareQuotes<Row extends Priced>(rows: readonly Row[], today: string): (Row & { aboveMinor: number; lowest: boolean; lapsed: boolean })[] {
  const named = rows.filter((row) => row.netMinor !== null)
  const stands = ({ validUntil }: Row) => validUntil === null || validUntil >= today
  const least = Math.min(...named.filter(stands).map((row) => row.netMinor!))
  return named
    .map((row) => ({
      ...row,
      aboveMinor: Number.isFinite(least) ? row.netMinor! - least : 0,
      lowest: stands(row) && row.netMinor === least,
      lapsed: !stands(row),
    }))
    .sort(
      (a, b) =>
        Number(a.lapsed) - Number(b.lapsed) ||
        a.netMinor! - b.netMinor! ||
        (a.earliestAt?.getTime() ?? Infinity) - (b.earliestAt?.getTime() ?? Infinity) ||
        a.id - b.id,
    )
}
