import { event } from '#core/kit'

/** What can happen to people and their accounts. */
export const PEOPLE_EVENTS = {
  'people.signOut': event<{ accountId: number | null }>()({ says: 'signed out', told: null, writes: false, changesWho: true }),
  'people.away': event<{ name: string; deputy: string; from: string; until: string }>()({ says: 'is away', told: null, writes: false, changesWho: true }),
  'people.back': event<{ accountId: number }>()({ says: 'is back', told: null, writes: false, changesWho: true }),
  'people.crew': event<{ what: string }>()({ says: 'changed', about: ({ what }) => what ?? '', told: null, writes: false }),
}
