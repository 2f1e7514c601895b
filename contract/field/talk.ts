import type { Instant } from '#contract/kit'
import type { TalkAudience, Speaker } from '#core/talk'

/** What was said on an order, as somebody who may read it finds it. */
export interface Said {
  /** Below zero while the server does not know it. */
  id: number
  mark: string | null
  speaker: Speaker
  audience: TalkAudience
  who: string
  text: string
  at: Instant
  photos: { id: number; fileId?: string }[]
  /** Said by whoever reads it. */
  mine: boolean
}

/** The conversation of an order. */
export interface Talk {
  rows: Said[]
  /** Whom one can write to. */
  to: { audience: TalkAudience; visitId: number | null; label: string }[]
}
