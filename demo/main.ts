import path from 'node:path'
import { fileURLToPath } from 'node:url'
import type { RowDataPacket } from 'mysql2/promise'
import { openDatabase, readConfig, runMigrations } from '#server/kit'
import { writeRoomBookings } from './access'
import { makeWorld } from './make'
import { writeWorld } from './write'

const SEED = 20_261

/** Makes the demo world once: a database that holds a site is left as it is. */
async function main(): Promise<void> {
  const config = readConfig(process.env, path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..'))
  const { pool } = openDatabase(config.databaseUrl, { connections: 2 })
  await runMigrations(pool, config.migrationsDir)
  const [sites] = await pool.query<RowDataPacket[]>('SELECT id FROM site LIMIT 1')
  if (!sites.length) {
    const began = Date.now()
    const world = await makeWorld(Number(process.env.EVRIX_SEED ?? SEED), config.now ?? new Date())
    await writeWorld(pool, world)
    writeRoomBookings(
      config.dataDir,
      world,
      world.rows.places.filter((place) => place.kind === 'space'),
    )
    process.stdout.write(
      `The demo world is made: ${world.rows.requests.length} requests, ${world.rows.orders.length} orders, ${((Date.now() - began) / 1000).toFixed(1)} s.\n`,
    )
  }
  await pool.end()
}

main().catch((error: unknown) => {
  process.stderr.write(`The demo world could not be made: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`)
  process.exit(1)
})
