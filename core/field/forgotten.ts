/** A clock that has run longer than this was forgotten: nobody is charged for it without a word (our own choice, no source). */
export const LONGEST_STINT_MINUTES = 14 * 60

export const isForgotten = (startAt: Date, now: Date): boolean => now.getTime() - startAt.getTime() > LONGEST_STINT_MINUTES * 60_000
