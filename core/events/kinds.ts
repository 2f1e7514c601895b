import { ASSET_EVENTS } from '#core/assets'
import { BOOKING_EVENTS } from '#core/bookings'
import { CLOSURE_EVENTS } from '#core/closures'
import { COBIE_EVENTS } from '#core/cobie'
import { DEVICE_EVENTS } from '#core/devices'
import { DOCUMENT_EVENTS } from '#core/documents'
import { DOWNTIME_EVENTS } from '#core/downtimes'
import { FEED_EVENTS } from '#core/feeds'
import { FIELD_EVENTS } from '#core/field'
import { FINDING_EVENTS } from '#core/findings'
import { TALK_EVENTS } from '#core/talk'
import { FLOORPLAN_EVENTS } from '#core/floorplans'
import { HELP_EVENTS } from '#core/help'
import type { EventRule } from '#core/kit'
import { LEDGER_EVENTS } from '#core/ledger'
import { MAIL_EVENTS } from '#core/mail'
import { METER_EVENTS } from '#core/meters'
import { METHOD_EVENTS } from '#core/methods'
import { ORDER_EVENTS } from '#core/orders'
import { OWN_EVENTS } from '#core/own'
import { PEOPLE_EVENTS } from '#core/people'
import { QUOTE_EVENTS } from '#core/quotes'
import { READINESS_EVENTS } from '#core/readiness'
import { REGISTER_EVENTS } from '#core/registers'
import { REQUEST_EVENTS } from '#core/requests'
import { SETUP_EVENTS } from '#core/setup'
import { SHIFT_EVENTS } from '#core/shifts'
import { STOCK_EVENTS } from '#core/stock'
import { TEMPLATE_EVENTS } from '#core/templates'
import { TRAVEL_EVENTS } from '#core/travel'
import { VENDOR_EVENTS } from '#core/vendors'
import { WINDOW_EVENTS } from '#core/windows'

/**
 * Every kind of event there is, brought by its room. Who reads events reads this table: timeline, tracking page,
 * mails, undo and live line alike. A kind that is not in it cannot be written.
 */
export const EVENTS = {
  ...REQUEST_EVENTS,
  ...ORDER_EVENTS,
  ...FIELD_EVENTS,
  ...FINDING_EVENTS,
  ...TALK_EVENTS,
  ...DEVICE_EVENTS,
  ...FEED_EVENTS,
  ...LEDGER_EVENTS,
  ...OWN_EVENTS,
  ...PEOPLE_EVENTS,
  ...HELP_EVENTS,
  ...MAIL_EVENTS,
  ...SETUP_EVENTS,
  ...REGISTER_EVENTS,
  ...ASSET_EVENTS,
  ...FLOORPLAN_EVENTS,
  ...DOCUMENT_EVENTS,
  ...COBIE_EVENTS,
  ...METER_EVENTS,
  ...DOWNTIME_EVENTS,
  ...METHOD_EVENTS,
  ...STOCK_EVENTS,
  ...SHIFT_EVENTS,
  ...BOOKING_EVENTS,
  ...TEMPLATE_EVENTS,
  ...READINESS_EVENTS,
  ...TRAVEL_EVENTS,
  ...VENDOR_EVENTS,
  ...QUOTE_EVENTS,
  ...WINDOW_EVENTS,
  ...CLOSURE_EVENTS,
} satisfies Record<string, EventRule<never>>

export type EventKind = keyof typeof EVENTS

/** What an event of this kind carries; all of it may be missing in old ones. */
export type EventFacts<Kind extends EventKind = EventKind> = Kind extends EventKind
  ? (typeof EVENTS)[Kind] extends { readonly facts?: infer Facts }
    ? Partial<Facts>
    : never
  : never

/** The kinds of which somebody is written a mail or a notice. */
export type WritingKind = { [Kind in EventKind]: (typeof EVENTS)[Kind]['writes'] extends true ? Kind : never }[EventKind]

export const EVENT_KINDS = Object.keys(EVENTS) as EventKind[]

type AnyRule = EventRule<Record<string, unknown>>

/** The rule of a kind, as one type for all. A kind of earlier days that is no longer in the table says its name. */
export function eventRule(kind: string): AnyRule {
  return (EVENTS as unknown as Record<string, AnyRule | undefined>)[kind] ?? { says: kind, told: null, writes: false }
}

/** Whether somebody acted, rather than the clock. */
export const isActed = (kind: string): boolean => !eventRule(kind).byClock

/** Whether it changes more of a request or order than its conversation and its timeline. */
export const isChange = (kind: string): boolean => !eventRule(kind).talk
