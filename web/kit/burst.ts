/** Letters closer together than this are somebody typing, not pressing a key. */
export const BURST_MS = 220
/** After a key that did nothing, whoever pressed it may think that they can type now. */
export const PUZZLED_MS = 1_500

/**
 * Tells a key that is pressed from text that is typed where no field takes it. What opens a field acts at once,
 * since letters go on in that field; what changes something acts once nothing has followed for a moment. Letters
 * in a burst are all left alone.
 */
export class Burst {
  private timer: ReturnType<typeof setTimeout> | undefined
  private quietUntil = -Infinity

  /** One letter at this time, in milliseconds. @param changes whether what it does is not undone by Esc */
  press(at: number, act: () => void, changes: boolean): void {
    const typed = at < this.quietUntil
    this.quietUntil = Math.max(this.quietUntil, at + BURST_MS)
    clearTimeout(this.timer)
    if (typed) return
    if (changes) this.timer = setTimeout(act, BURST_MS)
    else act()
  }

  /** A key did nothing: what is typed next does nothing either, for a while. */
  puzzle(at: number): void {
    this.quietUntil = at + PUZZLED_MS
  }

  stop(): void {
    clearTimeout(this.timer)
  }
}
