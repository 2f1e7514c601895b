import { and, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/assets'
import { OPEN_TRANSFER_STATES } from '#core/assets'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { command, maySee } from '#server/kit'
import { anyKeeper, lockRecord } from '#server/registers'
import { places, sites, transfers } from '../tables'
import { assetKeeper } from './keeper'
import { transferRow } from './transferRows'
import { tellOfTransfer } from './tellOfTransfer'

export default command(contract.askTransfer, async ({ tx, who, input, now, tell }) => {
  const asset = await lockRecord(tx, anyKeeper(assetKeeper), who, input.assetId)
  const [site] = await tx.select({ id: sites.id }).from(sites).where(eq(sites.id, input.toSiteId))
  const [place] = input.toPlaceId ? await tx.select().from(places).where(eq(places.id, input.toPlaceId)) : []
  const open = await tx
    .select({ id: transfers.id })
    .from(transfers)
    .where(and(eq(transfers.assetId, input.assetId), inArray(transfers.state, OPEN_TRANSFER_STATES)))
  const today = now.toISOString().slice(0, 10)
  const reasons: (Reason | false)[] = [
    asset.retiredAt !== null && { code: 'retired', sentence: 'It is retired: take it into use again first.' },
    open.length > 0 && { code: 'open', sentence: 'It is asked for or lent already: that has to be over first.' },
    !site && { code: 'site_unknown', sentence: 'Choose a site from the list.', field: 'toSiteId' },
    // A place of a site they do not see is not theirs to name; who agrees says where.
    !!input.toPlaceId &&
      (!place || place.siteId !== input.toSiteId || place.retiredAt !== null || !maySee(who, place.siteId)) && {
        code: 'place_unknown',
        sentence: 'Choose a place of that site from the list, or leave it to who agrees.',
        field: 'toPlaceId',
      },
    input.toSiteId === asset.siteId && !input.toPlaceId && { code: 'place_missing', sentence: 'Say where at this site it goes.', field: 'toPlaceId' },
    !!place && place.id === asset.placeId && { code: 'there', sentence: 'It stands there already.', field: 'toPlaceId' },
    input.kind === 'loan' && !input.returnBy && { code: 'return_missing', sentence: 'Say by which day it comes back.', field: 'returnBy' },
    input.kind === 'loan' && !!input.returnBy && input.returnBy <= today && { code: 'return_past', sentence: 'It comes back after today.', field: 'returnBy' },
    input.kind === 'move' && !!input.returnBy && { code: 'return_odd', sentence: 'What goes for good has no day on which it comes back.', field: 'returnBy' },
  ]
  const found = reasons.filter((reason): reason is Reason => reason !== false)
  if (found.length) throw new Refusal(found)
  const [saved] = await tx
    .insert(transfers)
    .values({
      assetId: asset.id,
      kind: input.kind,
      state: 'asked',
      fromSiteId: asset.siteId!,
      fromPlaceId: Number(asset.placeId),
      fromParentId: asset.parentId === null ? null : Number(asset.parentId),
      toSiteId: input.toSiteId,
      toPlaceId: input.toPlaceId ?? null,
      reason: input.reason,
      returnBy: input.returnBy ?? null,
      askedBy: who.accountId!,
      askedAt: now,
    })
    .$returningId()
  const row = await transferRow(tx, who, saved!.id)
  await tellOfTransfer(tell, 'asset.ask', row, input.reason, { kind: input.kind, returnBy: input.returnBy ?? null })
  return row
})
