import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import type { OwnFieldRow } from '#contract/own'
import type { OwnField, OwnKind } from '#core/own'
import type { Reader } from '#server/kit'
import { ownFields, ownValues } from '../tables'

const COLUMNS = {
  id: ownFields.id,
  kind: ownFields.kind,
  label: ownFields.label,
  shape: ownFields.shape,
  unit: ownFields.unit,
  choices: ownFields.choices,
}

/** The own fields of a kind that are in use, in the order in which they are shown. */
export const ownFieldsOf = (db: Reader, kind: OwnKind): Promise<OwnField[]> =>
  db
    .select(COLUMNS)
    .from(ownFields)
    .where(and(eq(ownFields.kind, kind), isNull(ownFields.retiredAt)))
    .orderBy(asc(ownFields.position), asc(ownFields.id))

/** All there are, those out of use too, with how much is written in each. */
export async function ownFieldRows(db: Reader): Promise<OwnFieldRow[]> {
  const rows = await db
    .select({
      ...COLUMNS,
      version: ownFields.version,
      retired: sql<number>`(${ownFields.retiredAt} is not null)`,
      used: sql<string>`(select count(*) from ${ownValues} where ${ownValues.fieldId} = own_field.id)`,
    })
    .from(ownFields)
    .orderBy(asc(ownFields.kind), asc(ownFields.position), asc(ownFields.id))
  return rows.map((row) => ({ ...row, retired: Number(row.retired) === 1, used: Number(row.used) }))
}
