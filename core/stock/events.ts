import { event } from '#core/kit'

/** What is bought, by the purchase it stands on. */
type Bought = { purchaseId: number; number: string }

/** What happens to parts, told on the timeline of the part and, where there is one, of the order. */
export const STOCK_EVENTS = {
  'stock.move': event<{ act: string; part: string; quantity: string; unit: string; store: string; to: string | null }>()({
    says: 'moved stock:',
    about: ({ act, quantity, unit, part, store, to }) =>
      `${(act ?? '').toLowerCase()}, ${quantity ?? ''} ${unit ?? ''} ${part ?? ''}${store ? `, ${store}` : ''}${to ? ` to ${to}` : ''}`,
    told: null,
    writes: false,
  }),
  'stock.reserve': event<{ part: string; quantity: string; unit: string; store: string }>()({
    says: 'reserved parts for it:',
    about: ({ quantity, unit, part, store }) => `${quantity ?? ''} ${unit ?? ''} ${part ?? ''} in ${store ?? ''}`,
    told: null,
    writes: false,
  }),
  'stock.ask': event<Bought & { part: string; quantity: string; unit: string }>()({
    says: 'asked for a part to be bought for it:',
    about: ({ quantity, unit, part, number }) => `${quantity ?? ''} ${unit ?? ''} ${part ?? ''}, ${number ?? ''}`,
    told: null,
    writes: false,
  }),
  'stock.purchase': event<Bought & { what: string }>()({
    says: 'changed a purchase:',
    about: ({ number, what }) => `${number ?? ''}${what ? `, ${what}` : ''}`,
    told: null,
    writes: false,
  }),
  'stock.order': event<Bought & { vendor: string }>()({
    says: 'ordered parts:',
    about: ({ number, vendor }) => `${number ?? ''}${vendor ? ` at ${vendor}` : ''}`,
    told: null,
    writes: true,
  }),
  'stock.receive': event<Bought & { whole: boolean }>()({
    says: 'received parts:',
    about: ({ number, whole }) => `${number ?? ''}${whole === false ? ', in part' : ''}`,
    told: null,
    writes: false,
  }),
  'stock.bill': event<Bought & { bill: string; amountMinor: number }>()({
    says: 'entered the bill of a purchase:',
    about: ({ number, bill, amountMinor }, words) => `${number ?? ''}, ${bill ?? ''}${amountMinor ? `, ${words.money(amountMinor)}` : ''}`,
    told: null,
    writes: false,
  }),
  'stock.count': event<{ store: string; counted: number; corrected: number }>()({
    says: 'counted a store:',
    about: ({ store, counted, corrected }) => `${store ?? ''}, ${counted ?? 0} parts, ${corrected ?? 0} corrected`,
    told: null,
    writes: false,
  }),
  'stock.arrived': event<{ parts: string; goesOn: boolean }>()({
    says: 'reserved for it what came:',
    about: ({ parts, goesOn }) => `${parts ?? ''}${goesOn ? '; nothing it waits for is missing' : ''}`,
    told: null,
    writes: true,
  }),
  'stock.release': event<{ part: string; quantity: string; unit: string; store: string }>()({
    says: 'released parts reserved for it:',
    about: ({ quantity, unit, part, store }) => `${quantity ?? ''} ${unit ?? ''} ${part ?? ''} in ${store ?? ''}`,
    told: null,
    writes: false,
  }),
}
