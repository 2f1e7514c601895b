import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/methods'
import type { MethodEdition } from '#contract/methods'
import { Refusal } from '#core/kit'
import { contentReasons, NO_CONTENT } from '#core/methods'
import type { MethodContent } from '#core/methods'
import { can, command, conflict, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { accounts, methodEditions, methods, people } from '../tables'
import { mustBeThere } from './mustBeThere'
import { planNames } from './names'

export const readMethodContent = query(contract.readMethodContent, ({ db, who, input }) => editionOf(db, who, input.id, input.edition))

export const writeMethod = command(contract.writeMethod, async ({ tx, who, input, now, tell }) => {
  const { id, from, content, note } = input
  const [method] = await tx.select().from(methods).where(eq(methods.id, id)).for('update')
  if (!method) throw notFound('method')
  if (method.edition !== from) throw conflict(method.edition, [{ field: 'edition', theirs: method.edition, yours: from }])
  if (method.retiredAt) throw new Refusal([{ code: 'retired', sentence: 'It is retired. Take it into use again to write it anew.' }])
  const reasons = contentReasons(content)
  if (reasons.length) throw new Refusal(reasons)
  await mustBeThere(tx, content)
  const edition = await addEdition(tx, id, from, content, { who, now, note: note || null })
  await tell({
    kind: 'method.edition',
    register: 'methods',
    recordId: id,
    details: { called: `${method.code} ${method.name}`, edition, note: note ?? '' },
  })
  return editionOf(tx, who, id)
})

/** Writes the next version of a method. @returns its number */
export async function addEdition(
  tx: Tx,
  methodId: number,
  from: number,
  content: MethodContent,
  { who, now, note }: { who: Asker; now: Date; note: string | null },
): Promise<number> {
  const edition = from + 1
  await tx.insert(methodEditions).values({ methodId, edition, content, note, at: now, by: who.accountId })
  await tx.update(methods).set({ edition }).where(eq(methods.id, methodId))
  return edition
}

async function editionOf(db: Reader, who: Asker, id: number, asked?: number): Promise<Outgoing<MethodEdition>> {
  const [method] = await db.select({ edition: methods.edition, retiredAt: methods.retiredAt }).from(methods).where(eq(methods.id, id))
  if (!method) throw notFound('method')
  const edition = asked ?? method.edition
  const [rows, [found]] = await Promise.all([
    db
      .select({ edition: methodEditions.edition, at: methodEditions.at, note: methodEditions.note, by: people.name })
      .from(methodEditions)
      .leftJoin(accounts, eq(accounts.id, methodEditions.by))
      .leftJoin(people, eq(people.id, accounts.personId))
      .where(eq(methodEditions.methodId, id))
      .orderBy(desc(methodEditions.edition)),
    db
      .select({ content: methodEditions.content })
      .from(methodEditions)
      .where(and(eq(methodEditions.methodId, id), eq(methodEditions.edition, edition))),
  ])
  if (asked !== undefined && !found) throw notFound('version')
  const content = found?.content ?? NO_CONTENT
  const editions = rows.map((row) => ({ ...row, by: row.by ?? '' }))
  const head = editions.find((row) => row.edition === edition)
  return {
    edition,
    content,
    names: await planNames(db, [content]),
    at: head?.at ?? null,
    by: head?.by ?? null,
    note: head?.note ?? null,
    mayEdit: can(who, 'registers.edit') && method.retiredAt === null && edition === method.edition,
    editions,
  }
}
