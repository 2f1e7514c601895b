import { event } from '#core/kit'

export const READINESS_EVENTS = {
  'space.readiness': event<{ space: string; state: string; was: string | null }>()({
    says: 'said how the space stands:',
    about: ({ state, was }) => `${(state ?? '').toLowerCase()}${was ? `, before ${was.toLowerCase()}` : ''}`,
    told: null,
    writes: false,
  }),
}
