/** A seeded generator: the same seed gives the same world. Mulberry32. */
export class Rng {
  constructor(private state: number) {}

  /** At least 0, below 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }

  int(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1))
  }

  chance(share: number): boolean {
    return this.next() < share
  }

  pick<T>(items: readonly T[]): T {
    return items[Math.floor(this.next() * items.length)]!
  }

  weighted<T>(items: readonly (readonly [T, number])[]): T {
    let left = this.next() * items.reduce((sum, [, weight]) => sum + weight, 0)
    for (const [item, weight] of items) if ((left -= weight) < 0) return item
    return items.at(-1)![0]
  }

  hex(length: number): string {
    return Array.from({ length }, () => this.int(0, 15).toString(16)).join('')
  }
}
