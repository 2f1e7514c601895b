import { event } from '#core/kit'
import type { TalkAudience, Speaker } from './audience'

/** What can happen in the conversation of an order. */
export const TALK_EVENTS = {
  'talk.say': event<{ messageId: number; speaker: Speaker; audience: TalkAudience; visitId: number | null }>()({
    says: 'wrote',
    about: ({ audience }) => ({ ours: 'to the desk and our people', vendor: 'between desk and vendor', reporter: 'to the reporter' })[audience ?? 'ours'],
    told: null,
    writes: true,
    talk: true,
  }),
  'talk.photo': event<{ messageId: number }>()({ says: 'added a photo to what they wrote', told: null, writes: false }),
}
