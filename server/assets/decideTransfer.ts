import { eq } from 'drizzle-orm'
import * as contract from '#contract/assets'
import { moveTransfer } from '#core/assets'
import type { TransferMove } from '#core/assets'
import { Refusal, refuse } from '#core/kit'
import { command, conflict, maySee, notFound } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { assets, places, transfers } from '../tables'
import { bringTo } from './bringTo'
import { tellOfTransfer } from './tellOfTransfer'
import { transferFacts, transferRow } from './transferRows'

/** Locks a transfer for a move of it. @throws ProblemReply 404, 409; Refusal when the rules say no */
async function begin(tx: Tx, who: Asker, { id, version }: { id: number; version: number }, move: TransferMove) {
  const [transfer] = await tx.select().from(transfers).where(eq(transfers.id, id)).for('update')
  if (!transfer || !(maySee(who, transfer.fromSiteId) || maySee(who, transfer.toSiteId))) throw notFound('transfer')
  if (transfer.version !== version) throw conflict(transfer.version, [{ field: 'state', theirs: transfer.state, yours: null }])
  const { state, reasons } = moveTransfer(transferFacts(transfer, who), move)
  if (!state) throw new Refusal(reasons)
  const [asset] = await tx.select().from(assets).where(eq(assets.id, transfer.assetId)).for('update')
  return { transfer, asset: asset!, state }
}

const save = (tx: Tx, transfer: typeof transfers.$inferSelect, fields: Partial<typeof transfers.$inferInsert>) =>
  tx
    .update(transfers)
    .set({ ...fields, version: transfer.version + 1 })
    .where(eq(transfers.id, transfer.id))

export const agreeTransfer = command(contract.agreeTransfer, async ({ tx, who, input, now, tell }) => {
  const { transfer, asset, state } = await begin(tx, who, input, 'agree')
  const placeId = input.placeId ?? transfer.toPlaceId
  const [place] = placeId ? await tx.select().from(places).where(eq(places.id, placeId)) : []
  if (!place || place.siteId !== transfer.toSiteId || place.retiredAt) refuse('place_missing', 'Say where here it goes: a place from the list.', 'placeId')
  if (asset.retiredAt) refuse('retired', 'It was retired meanwhile.')
  // What it was part of stays behind, unless that stands where it goes.
  const [parent] = asset.parentId ? await tx.select().from(assets).where(eq(assets.id, asset.parentId)) : []
  await bringTo(tx, tell, asset, place, parent?.siteId === place.siteId ? parent.id : null)
  await save(tx, transfer, { state, toPlaceId: place.id, decidedBy: who.accountId, decidedAt: now })
  const row = await transferRow(tx, who, transfer.id)
  await tellOfTransfer(tell, 'asset.agree', row, null)
  return row
})

export const refuseTransfer = command(contract.refuseTransfer, async ({ tx, who, input, now, tell }) => {
  const { transfer, state } = await begin(tx, who, input, 'refuse')
  await save(tx, transfer, { state, decidedBy: who.accountId, decidedAt: now, note: input.reason })
  const row = await transferRow(tx, who, transfer.id)
  await tellOfTransfer(tell, 'asset.refuse', row, input.reason)
  return row
})

export const withdrawTransfer = command(contract.withdrawTransfer, async ({ tx, who, input, now, tell }) => {
  const { transfer, state } = await begin(tx, who, input, 'withdraw')
  await save(tx, transfer, { state, decidedBy: who.accountId, decidedAt: now })
  const row = await transferRow(tx, who, transfer.id)
  await tellOfTransfer(tell, 'asset.withdraw', row, null)
  return row
})

export const giveBackAsset = command(contract.giveBackAsset, async ({ tx, who, input, now, tell }) => {
  const { transfer, asset, state } = await begin(tx, who, input, 'giveBack')
  const [place] = await tx.select().from(places).where(eq(places.id, transfer.fromPlaceId))
  if (place!.retiredAt) refuse('place_retired', `${place!.code} ${place!.name}, where it came from, is retired meanwhile. Take that into use again first.`)
  const [parent] = transfer.fromParentId ? await tx.select().from(assets).where(eq(assets.id, transfer.fromParentId)) : []
  await bringTo(tx, tell, asset, place!, parent && !parent.retiredAt && parent.siteId === place!.siteId ? parent.id : null)
  await save(tx, transfer, { state, returnedAt: now })
  const row = await transferRow(tx, who, transfer.id)
  await tellOfTransfer(tell, 'asset.giveBack', row, null)
  return row
})
