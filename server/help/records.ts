import { eq } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { bulletinPlaces, bulletins } from '../tables'

interface Told {
  siteId: number
  placeId: number
  title: string
  /** Plain words, in paragraphs. */
  text: string
  startsAt: Date
  endsAt: Date
  by: number | null
}

const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`)

/** What occupants of a place are told at the Counter of something that is closed there. @returns its id */
export async function tellOccupants(tx: Tx, { siteId, placeId, title, text, startsAt, endsAt, by }: Told): Promise<number> {
  const body = text
    .split(/\n{2,}/)
    .filter((one) => one.trim())
    .map((one) => `<p>${escaped(one.trim()).replace(/\n/g, '<br>')}</p>`)
    .join('')
  const [saved] = await tx.insert(bulletins).values({ siteId, kind: 'closure', title, body, startsAt, endsAt, writtenBy: by }).$returningId()
  await tx.insert(bulletinPlaces).values({ bulletinId: saved!.id, placeId })
  return saved!.id
}

/** It is true for another time, or not at all. */
export async function tellOtherwise(tx: Tx, id: number, span: { startsAt: Date; endsAt: Date } | 'withdrawn', now: Date): Promise<void> {
  const [before] = await tx.select().from(bulletins).where(eq(bulletins.id, id)).for('update')
  if (!before) return
  await tx
    .update(bulletins)
    .set({ ...(span === 'withdrawn' ? { withdrawnAt: now } : span), version: before.version + 1 })
    .where(eq(bulletins.id, id))
}
