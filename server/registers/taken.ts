import { and, ne } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { Reason } from '#core/kit'
import type { RegisterName } from '#core/registers'
import type { Reader } from '#server/kit'
import type { RecordTable } from './keeper'

/**
 * The reason why a tag, a code or a name cannot be given: another record of the register has it. Names that one,
 * so that it can be opened instead.
 */
export async function takenBy(
  db: Reader,
  { register, table, id, where, field, word }: { register: RegisterName; table: RecordTable; id: number; where: SQL | undefined; field: string; word: string },
  nameOf: (row: Record<string, unknown>) => string,
): Promise<Reason[]> {
  const [other] = (await db
    .select()
    .from(table)
    .where(and(where, ne(table.id, id)))
    .limit(1)) as Record<string, unknown>[]
  if (!other) return []
  const retired = other.retiredAt ? ', which is retired' : ''
  return [
    {
      code: 'taken',
      sentence: `${word} belongs to ${nameOf(other)} already${retired}. Open that one, or write another.`,
      field,
      record: { register, id: Number(other.id) },
    },
  ]
}
