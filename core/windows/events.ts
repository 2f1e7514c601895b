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

/** What is agreed with the person on site, told on the timeline of the order. */
export const WINDOW_EVENTS = {
  'window.offer': event<Offered>()({
    says: 'offered times for access:',
    about: ({ name, times }) => `${times ?? 0} to ${name ?? 'somebody'}`,
    told: ({ times }) => (times === 1 ? 'We offered you a time to come.' : 'We offered you times to come.'),
    writes: true,
  }),
  'window.withdraw': event<{ offerId: number; name: string }>()({
    says: 'took back the times offered:',
    about: ({ name }) => name ?? '',
    told: () => 'You need not choose a time any more.',
    writes: true,
  }),
  'window.choose': event<Agreed & { offerId: number; name: string }>()({
    says: 'chose a time for access:',
    about: span,
    told: ({ from }, day) => `You chose a time: ${from ? day(from) : ''}.`,
    writes: true,
  }),
  'window.none': event<{ offerId: number; name: string }>()({
    says: 'can let nobody in at the times offered',
    told: () => 'You told us that none of the times fits.',
    writes: true,
  }),
  'window.agree': event<Agreed & { name: string | null }>()({
    says: 'noted the time agreed for access:',
    about: (facts, words) => `${span(facts, words)}${facts.name ? `, with ${facts.name}` : ''}`,
    told: null,
    writes: true,
  }),
  'window.clear': event()({ says: 'took off the time agreed for access', told: null, writes: true }),
}
