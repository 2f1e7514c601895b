import { eq, inArray, max, sql } from 'drizzle-orm'
import { Refusal } from '#core/kit'
import { MOST_FIELDS, OWN_COLUMNS } from '#core/own'
import type { OwnKind, OwnValue } from '#core/own'
import { mustReachAll } from '#server/kit'
import type { Asker, Tell, Tx } from '#server/kit'
import { ownFields, ownValues, ownVersions } from '../tables'
import { lockFields } from './addOwnField'

export interface TakenValue {
  /** Null for a field that is made from its label, as a text. */
  fieldId: number | null
  label: string
  recordId: number
  value: OwnValue
}

const AT_ONCE = 500

/** Makes text fields for labels that have none yet. @returns their ids by label @throws Refusal, ProblemReply when there would be too many, or it is not theirs to make them */
async function madeFor({ tx, who, tell }: { tx: Tx; who: Asker; tell: Tell }, kind: OwnKind, labels: string[]): Promise<Map<string, number>> {
  const made = new Map<string, number>()
  if (!labels.length) return made
  mustReachAll(who)
  const all = await lockFields(tx, kind)
  const [{ last }] = (await tx
    .select({ last: max(ownFields.position) })
    .from(ownFields)
    .where(eq(ownFields.kind, kind))) as [{ last: number | null }]
  let position = last ?? 0
  for (const label of labels) {
    const there = all.find((one) => one.label.toLowerCase() === label.toLowerCase() && !one.retiredAt)
    if (there) {
      made.set(label, there.id)
      continue
    }
    if (all.filter((one) => !one.retiredAt).length + made.size >= MOST_FIELDS)
      throw new Refusal([
        {
          code: 'too_many',
          sentence: `There can be ${MOST_FIELDS} own fields. Nothing was taken; take some out of use, or leave what is no field.`,
          field: 'own',
        },
      ])
    const [saved] = await tx.insert(ownFields).values({ kind, label, shape: 'text', unit: null, choices: [], position: ++position }).$returningId()
    made.set(label, saved!.id)
    await tell({ kind: 'own.field', details: { label, of: kind, what: 'added' } })
  }
  return made
}

/** Writes many values of own fields of one kind at once. Whoever calls has read them by `readOwnValue`. */
export async function takeOwnValues(context: { tx: Tx; who: Asker; tell: Tell }, kind: OwnKind, values: TakenValue[]): Promise<void> {
  const { tx } = context
  if (!values.length) return
  const made = await madeFor(context, kind, [...new Set(values.flatMap(({ fieldId, label }) => (fieldId === null ? [label] : [])))])
  const ids = [...new Set(values.map(({ fieldId, label }) => fieldId ?? made.get(label)!))]
  const shapes = new Map(
    (await tx.select({ id: ownFields.id, shape: ownFields.shape }).from(ownFields).where(inArray(ownFields.id, ids))).map((row) => [row.id, row.shape]),
  )
  for (let at = 0; at < values.length; at += AT_ONCE) {
    const some = values.slice(at, at + AT_ONCE)
    await tx
      .insert(ownValues)
      .values(
        some.map(({ fieldId, label, recordId, value }) => {
          const id = fieldId ?? made.get(label)!
          return { fieldId: id, recordId, text: null, number: null, day: null, [OWN_COLUMNS[shapes.get(id)!]]: value }
        }),
      )
      .onDuplicateKeyUpdate({ set: { text: sql`values(text)`, number: sql`values(number)`, day: sql`values(day)` } })
    const records = [...new Set(some.map(({ recordId }) => recordId))]
    await tx
      .insert(ownVersions)
      .values(records.map((recordId) => ({ kind, recordId, version: 1 })))
      .onDuplicateKeyUpdate({ set: { version: sql`version + 1` } })
  }
}
