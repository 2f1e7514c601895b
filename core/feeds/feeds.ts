/** What a calendar program can subscribe to the visits of. */
export const FEED_REGISTERS = ['people', 'teams', 'vendors', 'places'] as const
export type FeedRegister = (typeof FEED_REGISTERS)[number]

/** Which visits a feed carries: from a month ago to a year ahead; our own choice, no source. */
export const FEED_DAYS = { back: 31, ahead: 366 } as const
/** How many feeds of one record may be in use at once: each who subscribes has one of their own, revoked alone. */
export const MOST_FEEDS = 10
