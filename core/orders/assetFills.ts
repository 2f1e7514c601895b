/** What an asset says of the work on it, and what a request or an order says already. */
export interface AssetSayings {
  placeId: number | null
  payerId: number | null
  vendorId: number | null
  contact: string | null
}
export type AssetSaying = keyof AssetSayings

export interface AssetFills {
  /** Empty so far: filled in without asking. */
  fills: AssetSaying[]
  /** Says something else already: the person chooses, field by field. */
  differs: AssetSaying[]
}

/** Which fields choosing an asset fills in, and which it would overwrite. `asked` are the fields there are. */
export function assetFills(now: Partial<AssetSayings>, says: AssetSayings, asked: readonly AssetSaying[]): AssetFills {
  const told = asked.filter((field) => says[field] !== null && says[field] !== now[field])
  const empty = (field: AssetSaying) => now[field] === null || now[field] === undefined || now[field] === ''
  return { fills: told.filter(empty), differs: told.filter((field) => !empty(field)) }
}
