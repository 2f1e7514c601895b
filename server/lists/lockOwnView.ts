import { and, eq } from 'drizzle-orm'
import { notFound } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { savedViews } from '../tables'

/** A view of the person asking, locked. @throws ProblemReply 404 when there is none of theirs */
export async function lockOwnView(tx: Tx, who: Asker, id: number) {
  const [view] = await tx
    .select()
    .from(savedViews)
    .where(and(eq(savedViews.id, id), eq(savedViews.ownerId, who.accountId!)))
    .for('update')
  if (!view) throw notFound('view')
  return view
}
