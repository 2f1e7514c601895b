/** A paper of a vendor that has to be in force on the day somebody comes. */
export interface Paper {
  what: string
  until: string | null
  /** On that day: in force, ended, or nothing known of it. */
  stands: 'in_force' | 'ended' | 'unknown'
}
export interface Papers {
  contractUntil: string | null
  insuranceUntil: string | null
  licenceUntil: string | null
}

/** How contract, insurance and licence stand on a day; days as ISO 8601, the last one still counts. */
export function papersOn({ contractUntil, insuranceUntil, licenceUntil }: Papers, day: string): Paper[] {
  const stands = (until: string | null) => (until === null ? ('unknown' as const) : until >= day ? ('in_force' as const) : ('ended' as const))
  return [
    { what: 'Insurance', until: insuranceUntil, stands: stands(insuranceUntil) },
    { what: 'Licence', until: licenceUntil, stands: stands(licenceUntil) },
    { what: 'Contract', until: contractUntil, stands: stands(contractUntil) },
  ]
}

/** The papers without which nobody is sent but for a reason: insurance and licence that have ended. A contract is about the price alone. */
export const papersMissing = (papers: readonly Paper[]): Paper[] => papers.filter(({ what, stands }) => stands === 'ended' && what !== 'Contract')

/** How often somebody came when they were to come. */
export interface Punctuality {
  onTime: number
  visits: number
}
/** A quarter of an hour of grace: common practice, no source. */
export const GRACE_MINUTES = 15

/**
 * Between which shares the truth lies, by what was seen: the score interval of Wilson (1927), at 95 %. Two lucky visits do
 * not beat two hundred good ones by their lower end.
 * @returns shares from 0 to 1; nothing is known of no visits: 0 to 1
 */
export function shareInterval({ onTime, visits }: Punctuality): { least: number; most: number } {
  if (visits === 0) return { least: 0, most: 1 }
  const share = onTime / visits
  const middle = (share + (Z * Z) / (2 * visits)) / (1 + (Z * Z) / visits)
  const half = (Z / (1 + (Z * Z) / visits)) * Math.sqrt((share * (1 - share)) / visits + (Z * Z) / (4 * visits * visits))
  return { least: Math.max(0, middle - half), most: Math.min(1, middle + half) }
}
/** The quantile of the normal distribution that leaves 2.5 % on each side. */
const Z = 1.959964

interface Choosable {
  name: string
  hasTrade: boolean
  papers: readonly Paper[]
  punctuality: Punctuality
}
/** In which order vendors are offered: the trade, papers in force, a contract, then who comes when they said. */
export function byFitness(a: Choosable, b: Choosable): number {
  const contract = (one: Choosable) => one.papers.some(({ what, stands }) => what === 'Contract' && stands === 'in_force')
  return (
    Number(b.hasTrade) - Number(a.hasTrade) ||
    papersMissing(a.papers).length - papersMissing(b.papers).length ||
    Number(contract(b)) - Number(contract(a)) ||
    shareInterval(b.punctuality).least - shareInterval(a.punctuality).least ||
    a.name.localeCompare(b.name)
  )
}
