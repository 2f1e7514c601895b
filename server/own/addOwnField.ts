import { eq } from 'drizzle-orm'
import * as contract from '#contract/own'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { choiceKey, MOST_FIELDS } from '#core/own'
import type { OwnChoice, OwnKind } from '#core/own'
import { command, mustReachAll } from '#server/kit'
import type { Tx } from '#server/kit'
import { ownFields } from '../tables'
import { ownFieldRows } from './ownFields'

export default command(contract.addOwnField, async ({ tx, who, input, tell }) => {
  mustReachAll(who)
  const { kind, label, shape, unit, choices } = input
  const all = await lockFields(tx, kind)
  const reasons: Reason[] = [...labelTaken(all, label, null), ...(shape === 'choice' ? choicesProblems((choices ?? []).map((name) => ({ name }))) : [])]
  if (all.filter((one) => !one.retiredAt).length >= MOST_FIELDS)
    reasons.push({ code: 'too_many', sentence: `There are ${MOST_FIELDS} fields already. Take one out of use first.`, field: 'label' })
  if (reasons.length) throw new Refusal(reasons)
  await tx.insert(ownFields).values({
    kind,
    label,
    shape,
    unit: shape === 'number' ? unit || null : null,
    choices: shape === 'choice' ? keyed((choices ?? []).map((name) => ({ name }))) : [],
    position: Math.max(0, ...all.map((one) => one.position)) + 1,
  })
  await tell({ kind: 'own.field', details: { label, of: kind, what: 'added' } })
  return { rows: await ownFieldRows(tx) }
})

/** Every field of a kind, held: two administrators never give two the same name or place. */
export const lockFields = (tx: Tx, kind: OwnKind) => tx.select().from(ownFields).where(eq(ownFields.kind, kind)).for('update')

export function labelTaken(all: (typeof ownFields.$inferSelect)[], label: string, id: number | null): Reason[] {
  const same = all.find((one) => one.id !== id && one.label.toLowerCase() === label.toLowerCase() && !one.retiredAt)
  return same ? [{ code: 'name_taken', sentence: `There is a field called “${same.label}” already.`, field: 'label' }] : []
}

export function choicesProblems(choices: { name: string }[]): Reason[] {
  const names = choices.map((one) => one.name.toLowerCase())
  if (names.length < 2) return [{ code: 'too_few', sentence: 'Write at least two things to choose from.', field: 'choices' }]
  const twice = choices.find((one, index) => names.indexOf(one.name.toLowerCase()) !== index)
  return twice ? [{ code: 'twice', sentence: `“${twice.name}” stands there twice.`, field: 'choices' }] : []
}

/** Those that have a key keep it; the others get one from their name. */
export function keyed(choices: { key?: string; name: string }[]): OwnChoice[] {
  const taken = choices.flatMap((one) => one.key ?? [])
  return choices.map(({ key, name }) => {
    const own = key ?? choiceKey(name, taken)
    taken.push(own)
    return { key: own, name }
  })
}
