import type { TimelineEntry } from '#contract/requests'
import { eventRule } from '#core/events'
import { formatMinor } from '#core/kit'
import { shortTime } from '#web/kit'

/** What somebody did, as their name begins the sentence, with what it was about: "set the clock to travel". Of fields that were changed, nothing. */
export function eventSays({ kind, details }: Pick<TimelineEntry, 'kind' | 'details'>): string {
  const { fields: _, ...facts } = details ?? {}
  const rule = eventRule(kind)
  return [rule.says, rule.about?.(facts, { time: shortTime, money: formatMinor })].filter(Boolean).join(' ')
}
