import { and, eq, ne } from 'drizzle-orm'
import type { CategoryEntry } from '#contract/setup'
import { Refusal, refuse } from '#core/kit'
import { formReasons } from '#core/requests'
import { mustKnow, notFound } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { categories, categoryForms } from '../tables'
import { newestForms } from './categoryForms'

/** Writes or changes a category; changed questions become a new form. @throws Refusal at the field that is wrong */
export async function keepCategory(tx: Tx, who: Asker, now: Date, entry: CategoryEntry): Promise<void> {
  const { id, questions, retired, hint, ...row } = entry
  const reasons = formReasons(questions)
  if (reasons.length) throw new Refusal(reasons)
  const [same] = await tx
    .select({ id: categories.id })
    .from(categories)
    .where(and(eq(categories.code, row.code), id ? ne(categories.id, id) : undefined))
  if (same) refuse('code_taken', 'Another category has this short name.', 'code')
  await mustKnow(tx, { siteId: 0, who }, { tradeId: ['trade', row.tradeId] })
  if (row.parentId) await checkParent(tx, id ?? null, row.parentId)
  const [before] = id ? await tx.select().from(categories).where(eq(categories.id, id)).for('update') : []
  if (id && !before) throw notFound('category')
  const values = { ...row, hint: hint || null, retiredAt: retired ? (before?.retiredAt ?? now) : null }
  const categoryId = before?.id ?? (await tx.insert(categories).values(values).$returningId())[0]!.id
  if (before) await tx.update(categories).set(values).where(eq(categories.id, categoryId))
  const form = (await newestForms(tx)).get(categoryId)
  // A form is never edited: what was answered keeps the questions it was answered to.
  if (JSON.stringify(form?.questions ?? []) !== JSON.stringify(questions))
    await tx.insert(categoryForms).values({ categoryId, round: (form?.round ?? 0) + 1, questions, madeAt: now, madeBy: who.accountId })
}

/** A short tree: two levels, and nothing under itself. */
async function checkParent(tx: Tx, id: number | null, parentId: number): Promise<void> {
  const [parent] = await tx.select().from(categories).where(eq(categories.id, parentId))
  if (!parent || parent.id === id) refuse('parent_unknown', 'Choose another category to put it under.', 'parentId')
  if (parent.parentId) refuse('too_deep', `“${parent.name}” is under another already; two levels are enough to find something.`, 'parentId')
  const [child] = id ? await tx.select({ id: categories.id }).from(categories).where(eq(categories.parentId, id)) : []
  if (child) refuse('has_children', 'Others are under this one; move them first.', 'parentId')
}
