import { event } from '#core/kit'
import type { EventWords } from '#core/kit'

interface Closed {
  closureId: number
  space: string
}
interface Spanned extends Closed {
  from: string
  until: string
}
const span = ({ space, from, until }: Partial<Spanned>, words: EventWords) =>
  `${space ?? ''}${from && until ? `, ${words.time(from)} to ${words.time(until)}` : ''}`

/** What becomes of spaces that are taken out of use, told on the timeline of the order and of the space. */
export const CLOSURE_EVENTS = {
  'closure.make': event<Spanned & { affects: number }>()({
    says: 'took out of use:',
    about: (facts, words) =>
      `${span(facts, words)}${facts.affects ? `; ${facts.affects} ${facts.affects === 1 ? 'booking falls' : 'bookings fall'} into it` : ''}`,
    told: null,
    writes: false,
  }),
  'closure.move': event<Spanned & { affects: number }>()({
    says: 'changed when it is out of use:',
    about: (facts, words) =>
      `${span(facts, words)}${facts.affects ? `; ${facts.affects} ${facts.affects === 1 ? 'booking falls' : 'bookings fall'} into it` : ''}`,
    told: null,
    writes: false,
  }),
  'closure.callOff': event<Closed>()({ says: 'called off that it is out of use:', about: ({ space }) => space ?? '', told: null, writes: false }),
  'closure.end': event<Closed & { until: string }>()({
    says: 'gave back sooner:',
    about: ({ space }) => space ?? '',
    told: null,
    writes: true,
  }),
  'closure.told': event<Closed & { how: 'told' | 'unknown' }>()({
    says: 'told the bookings system:',
    about: ({ space, how }) => `${space ?? ''}${how === 'unknown' ? ', which it does not know' : ''}`,
    told: null,
    writes: false,
    byClock: true,
  }),
  'closure.clash': event<Closed & { bookings: string[] }>()({
    says: 'found bookings made meanwhile:',
    about: ({ space, bookings }) => `${space ?? ''}: ${(bookings ?? []).join('; ')}`,
    told: null,
    writes: true,
    byClock: true,
  }),
}
