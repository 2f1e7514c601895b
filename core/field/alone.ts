import type { StintKind } from '#core/ledger'

/** How often somebody who works alone may be asked to say that they are all right, in minutes (our own choice, no source). */
export const CHECK_IN_LEAST = 5
export const CHECK_IN_MOST = 240
/** How long after that the desk is told (our own choice, no source). */
export const CHECK_IN_GRACE_MINUTES = 5

/** On the way and on a break somebody is not alone on the job. */
export const isAlone = (kind: StintKind): boolean => kind === 'work' || kind === 'waiting'

/** Until when they say again that they are all right. */
export const checkInBy = (at: Date, everyMinutes: number): Date => new Date(at.getTime() + everyMinutes * 60_000)

/** Whether the desk has to hear of it. */
export const isOverdue = (dueAt: Date, now: Date): boolean => now.getTime() >= dueAt.getTime() + CHECK_IN_GRACE_MINUTES * 60_000
