import { event } from '#core/kit'

/** Calendar feeds, on the timeline of the record they are of. */
export const FEED_EVENTS = {
  'feed.make': event<{ for: string }>()({ says: 'made a calendar feed', about: (facts) => (facts.for ? `for ${facts.for}` : ''), told: null, writes: false }),
  'feed.revoke': event<{ for: string }>()({
    says: 'took back a calendar feed',
    about: (facts) => (facts.for ? `for ${facts.for}` : ''),
    told: null,
    writes: false,
  }),
}
