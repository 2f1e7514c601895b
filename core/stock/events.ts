import { event } from '#core/kit'

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
  'stock.release': event<{ part: string; quantity: string; unit: string; store: string }>()({
    says: 'released parts reserved for it:',
    about: ({ quantity, unit, part, store }) => `${quantity ?? ''} ${unit ?? ''} ${part ?? ''} in ${store ?? ''}`,
    told: null,
    writes: false,
  }),
}
