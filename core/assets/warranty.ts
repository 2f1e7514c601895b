import { COVER_NAMES } from './fields'
import type { AssetFields } from './fields'

type Warranty = Pick<AssetFields, 'warrantyFrom' | 'warrantyUntil' | 'warrantyCovers' | 'warrantyTerms'>

/** Whether a warranty holds on a day ("2026-11-23"): from its first day, or always before, through its last. */
export const underWarranty = ({ warrantyFrom, warrantyUntil }: Pick<Warranty, 'warrantyFrom' | 'warrantyUntil'>, day: string): boolean =>
  warrantyUntil !== null && day <= warrantyUntil && (warrantyFrom === null || day >= warrantyFrom)

/** What to heed before work on it, or a bill for it, is decided; null when no warranty holds on that day. `written` writes the day. */
export function warrantyHeed(warranty: Warranty, day: string, written: (day: string) => string): string | null {
  if (!underWarranty(warranty, day)) return null
  const covers = warranty.warrantyCovers ? `, ${COVER_NAMES[warranty.warrantyCovers].toLowerCase()}` : ''
  return `Under warranty until ${written(warranty.warrantyUntil!)}${covers}: claim before paying.`
}
