import { event } from '#core/kit'

/** What can happen to the money of an order beyond its moves. */
export const LEDGER_EVENTS = {
  'vendor.bill': event<{ number: string; netMinor: number; lines: number }>()({
    says: 'entered a bill',
    about: ({ number, netMinor }, words) => `${number}, ${words.money(netMinor ?? 0)} before tax`,
    told: null,
    writes: false,
  }),
}
