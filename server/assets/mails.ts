import { eq } from 'drizzle-orm'
import { notice, openHolders } from '#server/kit'
import type { Mails, Telling } from '#server/kit'
import { transfers } from '../tables'

/** Those who answer where an asset is to go hear that it was asked for; who asked hears what became of it. */
export const assetMails = {
  'asset.ask': async (telling) => {
    const { event, tx } = telling
    const { asset, from, to } = event.details as Record<string, string>
    const there = await openHolders(tx, 'registers.edit', event.siteId!)
    const whom = there.map((one) => one.id).filter((id) => id !== event.actorId)
    await notice(telling, whom, `${event.actorName} asks for ${asset} to go from ${from} to ${to}: ${event.reason ?? ''}`, '/transfers')
  },
  'asset.agree': (telling) => tellAsker(telling, 'agreed: it stands there now'),
  'asset.refuse': (telling) => tellAsker(telling, 'refused'),
  'asset.giveBack': (telling) => tellAsker(telling, 'given back'),
} satisfies Mails

async function tellAsker(telling: Telling, verdict: string): Promise<void> {
  const { event, tx } = telling
  const { transferId, asset, to } = event.details as { transferId: number; asset: string; to: string }
  const [transfer] = await tx.select({ askedBy: transfers.askedBy }).from(transfers).where(eq(transfers.id, transferId))
  if (!transfer || transfer.askedBy === event.actorId) return
  await notice(telling, [transfer.askedBy], `${asset} to ${to}: ${verdict}${event.reason ? `, ${event.reason}` : ''}.`)
}
