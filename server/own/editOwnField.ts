import { and, count, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/own'
import { counted, Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { command, conflict, mustReachAll, notFound } from '#server/kit'
import type { Tx } from '#server/kit'
import { ownFields, ownValues } from '../tables'
import { choicesProblems, keyed, labelTaken, lockFields } from './addOwnField'
import { ownFieldRows } from './ownFields'

type Row = typeof ownFields.$inferSelect

export default command(contract.editOwnField, async ({ tx, who, input, now, tell }) => {
  mustReachAll(who)
  const [found] = await tx.select().from(ownFields).where(eq(ownFields.id, input.id))
  if (!found) throw notFound('field')
  const all = await lockFields(tx, found.kind)
  const before = all.find((one) => one.id === input.id)!
  if (before.version !== input.version) throw conflict(before.version, [])
  const label = input.label ?? before.label
  const takenBack = input.retired === false && before.retiredAt !== null
  const reasons: Reason[] = input.label !== undefined || takenBack ? labelTaken(all, label, before.id) : []
  if (input.choices && before.shape === 'choice') reasons.push(...choicesProblems(input.choices), ...(await stillChosen(tx, before, input.choices)))
  if (reasons.length) throw new Refusal(reasons)
  await tx
    .update(ownFields)
    .set({
      label,
      unit: before.shape === 'number' && input.unit !== undefined ? input.unit || null : before.unit,
      choices: input.choices && before.shape === 'choice' ? keyed(input.choices) : before.choices,
      retiredAt: input.retired === undefined ? before.retiredAt : input.retired ? (before.retiredAt ?? now) : null,
      version: before.version + 1,
    })
    .where(eq(ownFields.id, before.id))
  if (input.before !== undefined) await place(tx, all, before, input.before)
  const what = takenBack ? 'restored' : input.retired && !before.retiredAt ? 'retired' : 'changed'
  await tell({ kind: 'own.field', details: { label, of: before.kind, what } })
  return { rows: await ownFieldRows(tx) }
})

/** What somebody chose is not taken away from under them. */
async function stillChosen(tx: Tx, field: Row, choices: { key?: string }[]): Promise<Reason[]> {
  const gone = field.choices.filter((one) => !choices.some((choice) => choice.key === one.key))
  if (!gone.length) return []
  const used = await tx
    .select({ key: ownValues.text, n: count() })
    .from(ownValues)
    .where(
      and(
        eq(ownValues.fieldId, field.id),
        inArray(
          ownValues.text,
          gone.map((one) => one.key),
        ),
      ),
    )
    .groupBy(ownValues.text)
  return used.map(({ key, n }) => ({
    code: 'in_use',
    sentence: `“${gone.find((one) => one.key === key)?.name}” is chosen in ${counted(Number(n), 'record')}. Change those first, or call it otherwise.`,
    field: 'choices',
  }))
}

async function place(tx: Tx, all: Row[], field: Row, before: number | null): Promise<void> {
  const others = all.filter((one) => one.id !== field.id).sort((a, b) => a.position - b.position || a.id - b.id)
  const at = before === null ? others.length : others.findIndex((one) => one.id === before)
  others.splice(at < 0 ? others.length : at, 0, field)
  for (const [index, one] of others.entries())
    if (one.position !== index + 1)
      await tx
        .update(ownFields)
        .set({ position: index + 1 })
        .where(eq(ownFields.id, one.id))
}
