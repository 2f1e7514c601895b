/** Where a bar lies among so many days, in percent of their width; what lies outside is cut off. @param wall the wall-clock time of the site, "2026-11-26T14:30" */
export function barOf(
  { from, until, late }: { from: string; until: string; late: boolean },
  first: string,
  days: number,
  wall: (at: string) => string,
): { left: number; width: number } {
  const at = (instant: string) => {
    const text = wall(instant)
    const day = (Date.parse(`${text.slice(0, 10)}T00:00:00Z`) - Date.parse(`${first}T00:00:00Z`)) / 86_400_000
    return ((day + (Number(text.slice(11, 13)) * 60 + Number(text.slice(14, 16))) / 1_440) / days) * 100
  }
  const left = Math.min(100, Math.max(0, at(from)))
  // What should be back is with somebody for as long as one can see, at least on the first day.
  const right = Math.min(100, Math.max(late ? 100 / days : 0, at(until)))
  return { left, width: Math.max(1.2, right - left) }
}
