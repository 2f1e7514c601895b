import { event } from '#core/kit'

/** What can be written down of when an asset could not be used. */
export const DOWNTIME_EVENTS = {
  'downtime.say': event<{ asset: string; from: string; until: string | null }>()({
    says: 'wrote down that it cannot be used:',
    about: ({ asset, from, until }, words) =>
      [asset, from && (until ? `${words.time(from)} to ${words.time(until)}` : `since ${words.time(from)}`)].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
  'downtime.takeBack': event<{ asset: string; from: string }>()({
    says: 'took back that it cannot be used',
    about: ({ asset, from }, words) => [asset, from && `since ${words.time(from)}`].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
}
