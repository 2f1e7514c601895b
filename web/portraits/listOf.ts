import type { RegisterName } from '#core/registers'

/** The field by which a list of orders is narrowed to a record, where there is one. */
const FIELD: Partial<Record<RegisterName, string>> = { places: 'place', assets: 'asset', teams: 'team', vendors: 'vendor', payers: 'payer' }

/** The address of the list behind a figure of a Portrait; `more` are further filters. Null where lists do not know the register. */
export function listOf(register: RegisterName, id: number, more = ''): string | null {
  const field = FIELD[register]
  return field ? `/lists/orders?${[`${field}=${id}`, more].filter(Boolean).join('&')}` : null
}
