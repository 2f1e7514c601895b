import { event } from '#core/kit'

interface Of {
  quoteId: number
  vendor: string
}
const who = ({ vendor }: Partial<Of>) => vendor ?? 'a vendor'

/** Prices that vendors were asked for. */
export const QUOTE_EVENTS = {
  'quote.ask': event<Of>()({ says: 'asked for a price:', about: who, told: null, writes: true }),
  'quote.withdraw': event<Of>()({ says: 'needs no price any more:', about: who, told: null, writes: true }),
  'quote.price': event<Of & { netMinor: number }>()({
    says: 'named a price:',
    about: ({ netMinor }, words) => (netMinor === undefined ? '' : `${words.money(netMinor)} before tax`),
    told: null,
    writes: true,
  }),
  'quote.decline': event<Of>()({ says: 'names no price', told: null, writes: true }),
  'quote.take': event<Of & { netMinor: number; over: number[] }>()({
    says: 'took the price of',
    about: ({ vendor, netMinor }, words) =>
      [vendor ?? 'a vendor', netMinor === undefined ? '' : `${words.money(netMinor)} before tax`].filter(Boolean).join(', '),
    told: null,
    writes: true,
  }),
  'quote.remind': event<Of>()({ says: 'reminded of the price asked for:', about: who, told: null, writes: true, byClock: true }),
  'quote.silent': event<Of>()({
    says: 'told the desk:',
    about: (facts) => `no price from ${who(facts)}`,
    told: null,
    writes: true,
    byClock: true,
  }),
}
