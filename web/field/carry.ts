import { carryAlong } from '#web/devices'
import { carryJobs } from './carryJobs'
import { FIELD_ACTS } from './fieldActs'

/** Opens what this phone carries along, before a page of Rounds is shown; and has Rounds open without a network from now on. */
export function openRounds(signedOut: () => unknown): Promise<void> {
  // What waits to be sent is not to be cleared away for want of room.
  void navigator.storage?.persist?.().catch(() => undefined)
  void navigator.serviceWorker?.register('/rounds.sw.js').catch(() => undefined)
  return carryAlong(FIELD_ACTS, carryJobs, signedOut)
}
