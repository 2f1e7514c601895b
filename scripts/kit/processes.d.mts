interface Part {
  stop: () => Promise<void>
  ended: Promise<unknown>
}
export function keepRunning<P extends Part>(
  name: string,
  start: () => Promise<P>,
  giveUp: (sentence: string) => void,
  options?: { pauseMs?: number },
): Promise<{ part: P; stop: () => Promise<void> }>
export function identityOf(pid: number): string | null
export function runs(pid: number, identity: string | null): boolean
