import { event } from '#core/kit'
import type { EventWords } from '#core/kit'

interface Agreed {
  from: string
  until: string
}
interface Offered {
  offerId: number
  name: string
  times: number
}
const span = ({ from, until }: Partial<Agreed>, words: EventWords) => (from && until ? `${words.time(from)} to ${words.time(until)}` : '')

/** To whoever reported what the order answers, who need not be the one who lets people in. */
const agreedSays = ({ from }: Partial<Agreed>, day: (instant: string) => string) => (from ? `A time was agreed: ${day(from)}.` : 'A time was agreed.')

/** What is agreed with the person on site, told on the timeline of the order. */
export const WINDOW_EVENTS = {
  'window.offer': event<Offered>()({
    says: 'offered times for access:',
    about: ({ name, times }) => `${times ?? 0} to ${name ?? 'somebody'}`,
    told: () => 'We asked when somebody can let us in.',
    writes: true,
  }),
  'window.withdraw': event<{ offerId: number; name: string }>()({
    says: 'took back the times offered:',
    about: ({ name }) => name ?? '',
    told: null,
    writes: true,
  }),
  'window.choose': event<Agreed & { offerId: number; name: string }>()({
    says: 'chose a time for access:',
    about: span,
    told: agreedSays,
    writes: true,
  }),
  'window.none': event<{ offerId: number; name: string }>()({
    says: 'can let nobody in at the times offered',
    told: null,
    writes: true,
  }),
  'window.agree': event<Agreed & { name: string | null }>()({
    says: 'noted the time agreed for access:',
    about: (facts, words) => `${span(facts, words)}${facts.name ? `, with ${facts.name}` : ''}`,
    told: agreedSays,
    writes: true,
  }),
  'window.clear': event()({ says: 'took off the time agreed for access', told: null, writes: true }),
}
