import { readFileSync } from 'node:fs'
import path from 'node:path'
import { drizzle } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import type { Pool, RowDataPacket } from 'mysql2/promise'

/** Brings the schema up to date; servers that start together wait for one another. */
export async function runMigrations(pool: Pool, folder: string): Promise<void> {
  const connection = await pool.getConnection()
  try {
    await connection.query("SELECT GET_LOCK('evrix-migrations', 120)")
    await migrate(drizzle(connection), { migrationsFolder: folder })
  } finally {
    await connection.query("SELECT RELEASE_LOCK('evrix-migrations')")
    connection.release()
  }
}

/** How many migrations are in, of how many there are. */
export async function migrationState(pool: Pool, folder: string): Promise<{ applied: number; expected: number }> {
  const journal = JSON.parse(readFileSync(path.join(folder, 'meta/_journal.json'), 'utf8')) as { entries: unknown[] }
  const [rows] = await pool.query<RowDataPacket[]>('SELECT COUNT(*) AS applied FROM __drizzle_migrations')
  return { applied: Number(rows[0]!.applied), expected: journal.entries.length }
}
