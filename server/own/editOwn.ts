import { and, eq, sql } from 'drizzle-orm'
import * as contract from '#contract/own'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { OWN_COLUMNS, ownId, ownName, ownSays, readOwnValue } from '#core/own'
import type { OwnField, OwnKind, OwnValue } from '#core/own'
import { can, changesOf, command, conflict, mustKnow, notAllowed } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { editsOf } from '#server/registers'
import { ownValues, ownVersions } from '../tables'
import { ownFieldsOf } from './ownFields'
import { ownRecord, ownSheet, ownValuesOf, ownVersion, personsIn } from './ownSheet'

export default command(contract.editOwn, async ({ tx, who, input, tell }) => {
  const { kind, id, version, ...sent } = input
  if (!can(who, editsOf(kind))) throw notAllowed()
  const { siteId, whyNot } = await ownRecord(tx, who, kind, id)
  if (whyNot) throw new Refusal([{ code: 'not_now', sentence: whyNot }])
  const fields = await ownFieldsOf(tx, kind)
  const values = await readAll(tx, who, siteId, fields, sent)
  await hold(tx, kind, id)
  const before = await ownValuesOf(tx, fields, id)
  const { fields: changed, differences } = changesOf(before, values)
  const now = await ownVersion(tx, kind, id)
  if (now !== version) throw conflict(now, differences)
  if (!differences.length) return ownSheet(tx, kind, id, null)
  for (const [name, value] of Object.entries(changed))
    await write(
      tx,
      fields.find((field) => ownName(field.id) === name)!,
      id,
      value ?? null,
    )
  await tx
    .update(ownVersions)
    .set({ version: version + 1 })
    .where(and(eq(ownVersions.kind, kind), eq(ownVersions.recordId, id)))
  const [was, are] = await Promise.all([personsIn(tx, fields, before), personsIn(tx, fields, values)])
  await tell({
    kind: 'own.edit',
    siteId,
    ...(kind === 'orders' ? { orderId: id } : kind === 'requests' ? { requestId: id } : { register: kind, recordId: id }),
    details: {
      changes: differences.map(({ field: name }) => {
        const field = fields.find((one) => ownName(one.id) === name)!
        const says = (all: Record<string, OwnValue>, names: Record<string, string>) =>
          ownSays(
            field,
            all[name] ?? null,
            () => names[name] ?? '',
            (day) => day,
          )
        return { label: field.label, from: says(before, was), to: says(values, are) }
      }),
    },
  })
  return ownSheet(tx, kind, id, null)
})

/** Every value as it is kept. @throws Refusal with what cannot be, each at its field */
async function readAll(tx: Tx, who: Asker, siteId: number | null, fields: OwnField[], sent: Record<string, unknown>): Promise<Record<string, OwnValue>> {
  const values: Record<string, OwnValue> = {}
  const reasons: Reason[] = []
  for (const [name, raw] of Object.entries(sent)) {
    const field = fields.find((one) => one.id === ownId(name))
    if (!field) {
      reasons.push({ code: 'no_field', sentence: 'This field is not there any more.', field: name })
      continue
    }
    const read = readOwnValue(field, raw)
    if ('problem' in read) reasons.push({ code: 'value', sentence: read.problem, field: name })
    else values[name] = read.value
  }
  if (reasons.length) throw new Refusal(reasons)
  const persons = fields.filter((field) => field.shape === 'person' && typeof values[ownName(field.id)] === 'number')
  await mustKnow(
    tx,
    { siteId: siteId ?? who.homeSiteId ?? 0, who },
    Object.fromEntries(persons.map(({ id }) => [ownName(id), ['person', Number(values[ownName(id)])] as const])),
  )
  return values
}

/** Those who change the same record's fields come one after the other. */
async function hold(tx: Tx, kind: OwnKind, recordId: number): Promise<void> {
  await tx
    .insert(ownVersions)
    .values({ kind, recordId, version: 0 })
    .onDuplicateKeyUpdate({ set: { version: sql`version` } })
}

async function write(tx: Tx, { id: fieldId, shape }: OwnField, recordId: number, value: OwnValue): Promise<void> {
  if (value === null) {
    await tx.delete(ownValues).where(and(eq(ownValues.fieldId, fieldId), eq(ownValues.recordId, recordId)))
    return
  }
  const column = { [OWN_COLUMNS[shape]]: value }
  await tx
    .insert(ownValues)
    .values({ fieldId, recordId, ...column })
    .onDuplicateKeyUpdate({ set: column })
}
