import type { TalkAudience } from '#core/talk'

/** What is about to be said: to whom, with which photos. */
export interface Written {
  audience: TalkAudience
  visitId: number | null
  text: string
  photos: Blob[]
}
