import { DateTime } from 'luxon'
import { isUnapproved, stillAgreed } from '#core/orders'
import type { OrderFacts } from '#core/orders'
import { PERMIT_NAMES } from './content'
import type { HazardLine } from './content'

/** A part of an order as far as dispatch is concerned; quantities as decimal texts. */
export interface PartStanding {
  name: string
  unit: string
  planned: string
  reserved: string
  issued: string
  /** What lies free in the stores of the site, all together. */
  free: string
  /** What is bought and has not come; only what is ordered for this order, with a day, is counted on. */
  coming?: readonly { state: string; quantity: string; expectedOn: string | null; forThis: boolean }[]
}

/** What is known of an order elsewhere. */
interface Beside {
  /** Equipment that is planned and not booked, by name. */
  unbooked?: readonly string[]
  /** Of its asset, while a warranty is in force and somebody else than who gives it would be sent; the day as people write it. */
  warranty?: { asset: string; vendor: string; until: string } | null
  /** A time is agreed with whoever lets people in. */
  agreed?: boolean
  /** The times offered last, while nothing is agreed: not answered yet, all of them past, or none that fits. */
  offered?: { name: string; state: 'waits' | 'passed' | 'none_fits' } | null
  /** What is booked in its space while somebody is planned to be there, as people say it. */
  booked?: readonly string[]
  /** Spaces that are out of use for it and of which the bookings system could not be told. */
  untold?: readonly string[]
}

/** Something that stands between an order and its dispatch. */
export interface ReadyLine {
  code: 'approval' | 'outgrown' | 'steps' | 'missing' | 'coming' | 'unkept' | 'equipment' | 'warranty' | 'permit' | 'access' | 'space'
  sentence: string
  /** Where it is cured: a field or a section of the Sheet. */
  field: string
  /** Of what comes: it is nothing any more from the day after this one on, "2026-11-26". */
  after?: string
}

/**
 * What stands between an order and dispatch, in the order in which it is seen to. Empty when nobody has to wait for
 * anything. A permit stays on the list as long as a hazard takes one.
 */
export function readyLines(
  facts: Pick<OrderFacts, 'state' | 'outgrownMinor' | 'estimateMinor' | 'stepsFirst' | 'contactName' | 'access'>,
  parts: readonly PartStanding[],
  hazards: readonly HazardLine[],
  { unbooked = [], warranty = null, agreed = false, offered = null, booked = [], untold = [] }: Beside = {},
): ReadyLine[] {
  const lines: ReadyLine[] = []
  if (isUnapproved(facts.state)) lines.push({ code: 'approval', sentence: 'It has not been approved.', field: 'approval' })
  for (const { sentence } of stillAgreed(facts as OrderFacts)) lines.push({ code: 'outgrown', sentence, field: 'estimate' })
  for (const part of parts) {
    const lacks = thousandths(part.planned) - thousandths(part.issued) - thousandths(part.reserved)
    if (lacks <= 0) continue
    const free = thousandths(part.free)
    const missing = lacks - Math.max(0, free)
    const after = missing > 0 ? dayOfAll(missing, part) : null
    if (after) lines.push({ code: 'coming', sentence: `${much(missing, part)} expected on ${dayWords(after)}.`, field: 'parts', after })
    else if (missing > 0) lines.push({ code: 'missing', sentence: `${much(missing, part)} not in stock.`, field: 'parts' })
    else lines.push({ code: 'unkept', sentence: `${much(lacks, part)} on hand and not reserved for it.`, field: 'parts' })
  }
  for (const name of unbooked) lines.push({ code: 'equipment', sentence: `${name} is not booked for it.`, field: 'equipment' })
  for (const text of facts.stepsFirst) lines.push({ code: 'steps', sentence: `“${text}” comes first.`, field: 'steps' })
  for (const permit of new Set(hazards.flatMap((hazard) => hazard.permit ?? [])))
    lines.push({ code: 'permit', sentence: `It takes a permit: ${PERMIT_NAMES[permit].toLowerCase()}.`, field: 'steps' })
  if (warranty)
    lines.push({
      code: 'warranty',
      sentence: `${warranty.asset} is under warranty with ${warranty.vendor} until ${warranty.until}: send for them, or know why not.`,
      field: 'vendorId',
    })
  for (const text of booked)
    lines.push({ code: 'space', sentence: `Booked then: ${text}. Take the space out of use, or agree on another time.`, field: 'closure' })
  for (const space of untold) lines.push({ code: 'space', sentence: `The bookings system could not be told that ${space} is out of use.`, field: 'closure' })
  if (agreed) return lines
  if (offered) lines.push({ code: 'access', sentence: OFFERED[offered.state](offered.name), field: 'window' })
  else if (!facts.contactName && !facts.access)
    lines.push({ code: 'access', sentence: 'Nobody is named who lets them in, and nothing is said of access.', field: 'contactName' })
  return lines
}

const OFFERED = {
  waits: (name: string) => `${name} has not chosen a time yet.`,
  passed: (name: string) => `${name} chose none of the times offered, and all have passed.`,
  none_fits: (name: string) => `None of the times offered fits ${name}: agree on another.`,
}
const much = (quantity: number, { unit, name }: PartStanding) => `${quantity / 1000} ${unit} of ${name} ${quantity === 1000 ? 'is' : 'are'}`
const thousandths = (quantity: string) => Math.round(Number(quantity) * 1000)

/** The day on which the last of what is missing should come; null where less of it is on its way than is missing. */
function dayOfAll(missing: number, { coming = [] }: PartStanding): string | null {
  const sure = coming.flatMap(({ state, quantity, expectedOn, forThis }) => (state === 'ordered' && forThis && expectedOn ? [{ quantity, expectedOn }] : []))
  let left = missing
  for (const { quantity, expectedOn } of sure.sort((a, b) => a.expectedOn.localeCompare(b.expectedOn))) {
    left -= thousandths(quantity)
    if (left <= 0) return expectedOn
  }
  return null
}
const dayWords = (day: string) => DateTime.fromISO(day, { locale: 'en-IE' }).toFormat('ccc d LLL')
