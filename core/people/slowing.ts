/** Wrong passwords of one pair of address and source before the next try waits. */
const FREE_TRIES = 3
/** The longest one try waits for the one before it: whoever types on alone is always looked at in the end. */
const LONGEST_PAUSE_MS = 8_000
/** Further ahead than this nobody is kept waiting: too many are being tried at once. */
export const LONGEST_WAIT_MS = 10_000

/** How long the try after `tries` others waits for its turn, in milliseconds. Our own choice, no source. */
export function pauseAfter(tries: number): number {
  return tries < FREE_TRIES ? 0 : Math.min(LONGEST_PAUSE_MS, 500 * 2 ** (tries - FREE_TRIES))
}
