import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  connectionOptions,
  DatabaseWatch,
  logger,
  makeClock,
  makeLinks,
  openDatabase,
  Presence,
  Publisher,
  readConfig,
  readSecret,
  runMigrations,
} from '#server/kit'
import type { Service } from '#server/kit'
import { writerOf } from '#server/kit'
import { makeApp } from './app'
import { MAILS } from './mails'
import { WORKS } from './works'

/** The longest a search may take (our own choice, no source). */
const SEARCH_SECONDS = 4

/** Starts the server, prints "listening <address>" when ready, and ends cleanly on SIGTERM. */
async function main(): Promise<void> {
  const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')
  const config = readConfig(process.env, root)
  const watch = new DatabaseWatch(connectionOptions(config.databaseUrl))
  const { db, pool } = openDatabase(config.databaseUrl, { watch })
  const changes = openDatabase(config.databaseUrl, { watch, connections: 8 })
  const searching = openDatabase(config.databaseUrl, { watch, connections: 6, mostSeconds: SEARCH_SECONDS })
  await runMigrations(pool, config.migrationsDir)
  watch.start()
  let address = config.publicUrl ?? ''
  const clock = makeClock(config.now)
  const links = makeLinks(readSecret(config.dataDir))
  const publisher: Publisher = new Publisher(db, [writerOf(MAILS, () => service)], clock)
  const service: Service = {
    config,
    db,
    writer: changes.db,
    searcher: searching.db,
    pool,
    clock,
    links,
    publisher,
    presence: new Presence(publisher.published),
    publicUrl: () => address,
  }
  const http = createServer(makeApp(service))
  // Longer than any client or proxy keeps a quiet line, so that none is closed under a request on its way.
  http.keepAliveTimeout = 65_000
  await new Promise<void>((resolve, reject) => http.once('error', reject).listen(config.port, config.host, resolve))
  const local = `http://${config.host === '0.0.0.0' || config.host === '::' ? '127.0.0.1' : config.host}:${(http.address() as AddressInfo).port}`
  address ||= local
  const works = WORKS.flatMap((ofRoom) => ofRoom(service))
  for (const work of works) await work.start()
  publisher.nudge()
  process.stdout.write(`listening ${local}\n`)
  const stop = async () => {
    // Whatever does not end in time is ended with the process.
    setTimeout(() => process.exit(1), 10_000).unref()
    publisher.published.emit('stop')
    http.close()
    http.closeAllConnections()
    for (const work of works.reverse()) await work.stop()
    await publisher.stop()
    await watch.stop()
    await Promise.all([pool.end(), changes.pool.end(), searching.pool.end()])
    process.exit(0)
  }
  process.once('SIGTERM', () => void stop())
  process.once('SIGINT', () => void stop())
  process.once('SIGHUP', () => void stop())
  // Whoever started it is gone, perhaps killed: nothing is left running.
  process.once('disconnect', () => void stop())
}

main().catch((error: unknown) => {
  logger.fatal({ error }, 'the server could not start')
  process.stderr.write(`The server could not start: ${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
