/** Letters closer together than this are somebody typing, not pressing a key. */
export const BURST_MS = 220

/**
 * Tells a key that is pressed from text that is typed where no field takes it. A letter is taken once nothing
 * has followed it for a moment; letters that come in a burst are all left alone.
 */
export class Burst {
  private timer: ReturnType<typeof setTimeout> | undefined
  private last = -Infinity

  /** One letter at this time, in milliseconds; `act` runs unless it turns out to be one of many. */
  press(at: number, act: () => void): void {
    const typed = at - this.last < BURST_MS
    this.last = at
    clearTimeout(this.timer)
    if (!typed) this.timer = setTimeout(act, BURST_MS)
  }

  stop(): void {
    clearTimeout(this.timer)
  }
}
