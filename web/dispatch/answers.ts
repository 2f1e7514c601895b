import { VISIT_ANSWER_NAMES } from '#core/dispatch'
import type { VisitAnswer } from '#core/dispatch'

/** How a vendor stands to a visit that is planned, in a word or two; nothing of our own people. */
export function answerSays({
  vendorId,
  state,
  answer,
  silent,
}: {
  vendorId: number | null
  state: string
  answer: VisitAnswer | null
  silent?: boolean
}): string {
  if (vendorId === null) return ''
  if (state === 'recalled') return answer === 'declined' ? 'declined' : ''
  if (state !== 'planned') return ''
  return answer ? VISIT_ANSWER_NAMES[answer].toLowerCase() : silent ? 'no answer' : 'not answered yet'
}
