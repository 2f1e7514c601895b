import { counted } from '#core/kit'
import { FINDING_SEVERITY_NAMES, worstSeverity } from './severity'
import type { FindingSeverity } from './severity'

/** A finding as an order is made of it. */
export interface FindingToOrder {
  text: string
  severity: FindingSeverity
  /** The number of the order it was found on. */
  foundOn: string
  /** "GAN-102 Studio 2", where that is known. */
  where: string | null
  placeId: number | null
  /** The ids from the site down to the place, like "/1/7/31/". */
  path: string | null
  assetId: number | null
}

/** What an order about them starts with, so that nothing is typed twice. */
export interface OrderOfFindings {
  summary: string
  description: string
  severity: FindingSeverity
  /** What all of them lie in; null where that is not known of one. */
  placeId: number | null
  /** Where all of them are on the same asset. */
  assetId: number | null
}

/** As long as the summary of an order may be. */
const LONGEST = 140

/** @param findings at least one */
export function orderOfFindings(findings: readonly FindingToOrder[]): OrderOfFindings {
  const [first] = findings as readonly [FindingToOrder]
  const severity = worstSeverity(findings.map((one) => one.severity))
  const assetId = findings.every((one) => one.assetId === first.assetId) ? first.assetId : null
  const same = findings.every((one) => one.placeId === first.placeId)
  const numbers = [...new Set(findings.map(({ foundOn }) => foundOn))]
  return {
    summary: findings.length === 1 ? firstLine(first.text) : `${counted(findings.length, 'finding')} of ${numbers.join(', ')}`.slice(0, LONGEST),
    description: findings.map((one, index) => (findings.length === 1 ? saidOf(one) : `${index + 1}. ${saidOf(one)}`)).join('\n'),
    severity,
    placeId: same ? first.placeId : placeAround(findings.map(({ path }) => path)),
    assetId,
  }
}

const saidOf = ({ text, where, severity, foundOn }: FindingToOrder): string =>
  `${where ? `${where}: ` : ''}${text} (${FINDING_SEVERITY_NAMES[severity].toLowerCase()}, found on ${foundOn})`

/** What fits on one line: whole words, and a mark where more follows. */
function firstLine(text: string): string {
  const [line = ''] = text.trim().split('\n')
  if (line.length <= LONGEST) return line
  const cut = line.slice(0, LONGEST - 1)
  const between = cut.lastIndexOf(' ')
  return `${between > LONGEST / 2 ? cut.slice(0, between) : cut}…`
}

/** The innermost place that holds all of these paths; null where one is not known or they have nothing in common. */
function placeAround(paths: readonly (string | null)[]): number | null {
  const ids = paths.map((path) => (path ?? '').split('/').filter(Boolean).map(Number))
  const [first = []] = ids
  const shared = first.filter((id, depth) => ids.every((one) => one[depth] === id))
  return shared.at(-1) ?? null
}
