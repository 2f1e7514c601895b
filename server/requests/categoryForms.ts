import { asc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { CounterCategory } from '#contract/requests'
import { Refusal, refuse } from '#core/kit'
import { answerReasons, answerText, cleanAnswers } from '#core/requests'
import type { Answers, Question } from '#core/requests'
import type { Reader } from '#server/kit'
import { categories, categoryForms } from '../tables'

/** The categories offered now, in their order, each with its newest form. */
export async function offeredCategories(db: Reader): Promise<CounterCategory[]> {
  const rows = await db.select().from(categories).where(isNull(categories.retiredAt)).orderBy(asc(categories.position), asc(categories.id))
  const forms = await newestForms(db)
  return rows.map(({ id, parentId, name, hint }) => ({
    id,
    parentId,
    name,
    hint,
    formId: forms.get(id)?.id ?? null,
    questions: forms.get(id)?.questions ?? [],
  }))
}

export async function newestForms(db: Reader): Promise<Map<number, { id: number; round: number; questions: Question[] }>> {
  const newest = db
    .select({ id: sql<number>`max(${categoryForms.id})` })
    .from(categoryForms)
    .groupBy(categoryForms.categoryId)
  const rows = await db.select().from(categoryForms).where(inArray(categoryForms.id, newest))
  return new Map(rows.map((row) => [row.categoryId, { id: row.id, round: row.round, questions: row.questions }]))
}

/**
 * The answers as they are kept, checked by the very form they were given to: an edit meanwhile breaks nothing.
 * @throws Refusal at "answers.<code>" when one is missing or wrong, at "categoryId" when the form is another's
 */
export async function checkAnswers(
  db: Reader,
  categoryId: number | null,
  formId: number | null,
  answers: Answers,
): Promise<{ formId: number | null; answers: Answers | null }> {
  if (!categoryId) return { formId: null, answers: null }
  const [category] = await db.select({ id: categories.id }).from(categories).where(eq(categories.id, categoryId))
  if (!category) refuse('category_unknown', 'Choose what it is about from the list.', 'categoryId')
  const form = formId
    ? (await db.select().from(categoryForms).where(eq(categoryForms.id, formId)))[0]
    : await newestForms(db).then((forms) => forms.get(categoryId))
  if (!form) return { formId: null, answers: null }
  if ('categoryId' in form && form.categoryId !== categoryId)
    refuse('form_other', 'These questions belong to something else. Choose what it is about again.', 'categoryId')
  const reasons = answerReasons(form.questions, answers)
  if (reasons.length) throw new Refusal(reasons)
  const kept = cleanAnswers(form.questions, answers)
  return { formId: form.id, answers: Object.keys(kept).length ? kept : null }
}

/** Question and answer as they are read, in the words of the form they were given to. */
export async function readAnswers(db: Reader, formId: number | null, answers: Answers | null): Promise<{ label: string; answer: string }[]> {
  if (!formId || !answers) return []
  const [form] = await db.select().from(categoryForms).where(eq(categoryForms.id, formId))
  return (form?.questions ?? []).flatMap((question) =>
    answers[question.code] === undefined ? [] : [{ label: question.label, answer: answerText(question, answers[question.code]!) }],
  )
}
