import type { FloorAround } from '#contract/findings'
import { isInside } from '#core/floorplans'
import type { Point } from '#core/floorplans'
import type { FieldActs } from '#core/field'
import { foldText } from '#core/kit'

/** A finding as it leaves its form: what is sent of it, where it is said to be, and its photos. */
export interface NewlyFound {
  finding: Omit<FieldActs['finding'], 'mark'>
  where: string | null
  photos: Blob[]
}

/** Where something can be found: a space, or an asset with the space it stands in. */
export interface Spot {
  placeId: number
  assetId?: number
  code: string
  name: string
}
export const spotSays = ({ code, name }: Spot): string => `${code} ${name}`

export const spotsOn = (floors: readonly FloorAround[]): Spot[] =>
  floors.flatMap(({ spaces, assets }) => [
    ...spaces.map(({ id, code, name }) => ({ placeId: id, code, name })),
    ...assets.map(({ id, tag, name, placeId }) => ({ placeId, assetId: id, code: tag, name })),
  ])

/** A code without what joins its parts: who types "gan102" means GAN-102. */
const bare = (code: string) => foldText(code).replaceAll(' ', '')

/** Spots whose code or name holds every word; whole codes first. */
export function spotsLike(spots: readonly Spot[], typed: string, most: number): Spot[] {
  const words = foldText(typed).split(' ').filter(Boolean)
  if (!words.length) return []
  const asCode = bare(typed)
  const fits = (spot: Spot) => bare(spot.code).startsWith(asCode) || words.every((word) => foldText(spotSays(spot)).includes(word))
  return spots
    .filter(fits)
    .sort((a, b) => Number(bare(b.code) === asCode) - Number(bare(a.code) === asCode))
    .slice(0, most)
}

/** The space a pin lies in, as the floor is drawn. */
export function spaceAt(floor: FloorAround | undefined, at: Point): Spot | null {
  const space = floor?.spaces.find(({ shape }) => shape && isInside(at, shape))
  return space ? { placeId: space.id, code: space.code, name: space.name } : null
}
