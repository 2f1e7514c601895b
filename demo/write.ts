import { getTableColumns, getTableName } from 'drizzle-orm'
import type { Pool } from 'mysql2/promise'
import * as tables from '../server/tables'
import { TABLES } from './world'
import type { World } from './world'

const ROWS_AT_ONCE = 800

/** Writes the world in one transaction, so that half a world is never left behind. */
export async function writeWorld(pool: Pool, world: World): Promise<void> {
  const connection = await pool.getConnection()
  try {
    await connection.query('SET FOREIGN_KEY_CHECKS = 0')
    await connection.beginTransaction()
    for (const name of TABLES) {
      const columns = Object.entries(getTableColumns(tables[name]))
      const rows = world.rows[name] as Record<string, unknown>[]
      const present = columns.filter(([key]) => rows.some((row) => row[key] !== undefined))
      const sqlNames = present.map(([, column]) => `\`${column.name}\``).join(', ')
      for (let from = 0; from < rows.length; from += ROWS_AT_ONCE) {
        const values = rows.slice(from, from + ROWS_AT_ONCE).map((row) => present.map(([key, column]) => toSql(row[key], column)))
        await connection.query(`INSERT INTO \`${getTableName(tables[name])}\` (${sqlNames}) VALUES ?`, [values])
      }
    }
    await connection.commit()
  } catch (error) {
    await connection.rollback()
    throw error
  } finally {
    await connection.query('SET FOREIGN_KEY_CHECKS = 1')
    connection.release()
  }
}

function toSql(value: unknown, column: { dataType: string; default: unknown; hasDefault: boolean; mapToDriverValue: (value: unknown) => unknown }): unknown {
  if (value === undefined) return column.hasDefault ? column.default : null
  return value === null ? null : column.dataType === 'json' ? JSON.stringify(value) : column.mapToDriverValue(value)
}
