import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/assets'
import { Refusal } from '#core/kit'
import { command, maySee, takeNumber } from '#server/kit'
import type { Tx } from '#server/kit'
import { insertRecord } from '#server/registers'
import { assets, places } from '../tables'
import { assetKeeper } from './keeper'

export default command(contract.noteAsset, async ({ tx, who, input, tell }) => {
  const [place] = await tx.select({ siteId: places.siteId }).from(places).where(eq(places.id, input.placeId))
  if (!place || !maySee(who, place.siteId)) throw new Refusal([{ code: 'place_unknown', sentence: 'Choose a place from the list.', field: 'placeId' }])
  const tag = input.tag ?? (await freeTag(tx, place.siteId))
  const values = { tag, name: input.name ?? tag, placeId: input.placeId, owner: 'us' as const }
  const { id } = await insertRecord({ tx, who, tell }, assetKeeper, { ...values, siteId: place.siteId })
  return { id, tag, name: values.name }
})

/** The next number of its series that nobody has written on something by hand. */
async function freeTag(tx: Tx, siteId: number): Promise<string> {
  for (;;) {
    const tag = await takeNumber(tx, siteId, 'asset')
    const taken = await tx
      .select({ id: assets.id })
      .from(assets)
      .where(and(eq(assets.siteId, siteId), eq(assets.tag, tag)))
    if (!taken.length) return tag
  }
}
