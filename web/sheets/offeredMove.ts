import type { Reason } from '#core/kit'

/** A move as a Sheet offers it. */
export interface OfferedMove {
  move: string
  label: string
  key: string
  reasons: Reason[]
  reason: 'required' | 'optional' | 'none'
  /** The next act, when it is possible: the one that carries the work on. */
  onward?: boolean
  reasonLabel?: string
  /** Reasons to choose from, where a rule gives a list. */
  answers?: string[]
  /** Choices that go with the reason, such as what an order waits for. */
  choices?: { name: string; options: { value: string; label: string }[] }
  /** States of the site’s own under the one it leads to: offered where something is asked anyway. */
  own?: { value: number; label: string }[]
  /** It opens something instead of being a move: what it does. */
  opens?: () => unknown
}
