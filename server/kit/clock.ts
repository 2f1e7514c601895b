/** Tells the time. With EVRIX_NOW it starts at that instant and runs on from there. */
export type Clock = () => Date

export function makeClock(startAt: Date | null): Clock {
  if (!startAt) return () => new Date()
  const offset = startAt.getTime() - Date.now()
  return () => new Date(Date.now() + offset)
}
