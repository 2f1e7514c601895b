import { eq } from 'drizzle-orm'
import * as contract from '#contract/help'
import { refuse } from '#core/kit'
import { command, conflict, maySee, mustKnow, mySite, notFound } from '#server/kit'
import { bulletinPlaces, bulletins } from '../tables'
import { readHelpSheet } from './helpSheet'
import { cleanRichText } from './richText'

export default command(contract.saveBulletin, async ({ tx, who, input, now, tell }) => {
  await mySite(tx, who, input.siteId)
  const { id, version, placeIds, withdrawn, ...words } = input
  const [startsAt, endsAt] = [new Date(words.startsAt), new Date(words.endsAt)]
  if (endsAt <= startsAt) refuse('ends_before', 'It ends after it starts.', 'endsAt')
  await mustKnow(tx, { siteId: input.siteId, who }, { placeIds: ['place', placeIds] })
  const row = { ...words, startsAt, endsAt, body: cleanRichText(words.body), withdrawnAt: withdrawn ? now : null }
  let savedId = id ?? 0
  if (id) {
    const [before] = await tx.select().from(bulletins).where(eq(bulletins.id, id)).for('update')
    if (!before || !maySee(who, before.siteId)) throw notFound('notice')
    if (before.version !== version) throw conflict(before.version, [{ field: 'title', theirs: before.title, yours: row.title }])
    await tx
      .update(bulletins)
      .set({ ...row, version: before.version + 1 })
      .where(eq(bulletins.id, id))
    await tx.delete(bulletinPlaces).where(eq(bulletinPlaces.bulletinId, id))
  } else
    savedId = (
      await tx
        .insert(bulletins)
        .values({ ...row, writtenBy: who.accountId })
        .$returningId()
    )[0]!.id
  await tx.insert(bulletinPlaces).values(placeIds.map((placeId) => ({ bulletinId: savedId, placeId })))
  await tell({ kind: 'help.bulletin', siteId: input.siteId, details: { title: input.title, withdrawn: !!withdrawn } })
  return readHelpSheet(tx, who)
})
