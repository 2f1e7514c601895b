/**
 * Minutes on foot between two places of a site, by what both lie in. Estimates of common practice, without a source: on the
 * same floor, in the same building, from one building to another, and from one site to another by road.
 */
export const TRAVEL_MINUTES = { floor: 2, building: 4, site: 8, beyond: 30 } as const

/**
 * How long it takes from one place to another.
 * @param from and to are paths in the tree of places, "/1/7/31/": site, building, floor, space; null where it is not known
 * @returns whole minutes; nought where either is not known
 */
export function travelMinutes(from: string | null, to: string | null): number {
  if (from === null || to === null || from === to) return 0
  const [a, b] = [stepsOf(from), stepsOf(to)]
  const shared = a.findIndex((step, index) => step !== b[index])
  const common = shared === -1 ? a.length : shared
  // One lies within the other: whoever is there is at the place already.
  if (common === a.length || common === b.length) return common > 2 ? 0 : common > 1 ? TRAVEL_MINUTES.building : TRAVEL_MINUTES.site
  return [TRAVEL_MINUTES.beyond, TRAVEL_MINUTES.site, TRAVEL_MINUTES.building][common] ?? TRAVEL_MINUTES.floor
}
const stepsOf = (path: string) => path.split('/').filter(Boolean)
