import { event } from '#core/kit'

/** Ways that somebody corrected, on the timeline of a place. */
export const TRAVEL_EVENTS = {
  'travel.say': event<{ to: string; minutes: number }>()({
    says: 'said how long a way takes:',
    about: ({ to, minutes }) => [to && `to ${to}`, minutes === undefined ? '' : `${minutes} min`].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
  'travel.drop': event<{ to: string }>()({ says: 'took back how long a way takes', about: ({ to }) => (to ? `to ${to}` : ''), told: null, writes: false }),
}
