import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  connectionOptions,
  DatabaseWatch,
  endThreads,
  makeClock,
  makeLinks,
  openDatabase,
  Presence,
  Publisher,
  readConfig,
  readSecret,
  runMigrations,
  writerOf,
} from '#server/kit'
import type { Service } from '#server/kit'
import { makeApp } from './app'
import { MAILS } from './mails'
import { WORKS } from './works'

/** The longest a search may take (our own choice, no source). */
const SEARCH_SECONDS = 4

/** A server that answers. */
export interface Served {
  address: string
  /** Ends all it keeps going and what it holds open. */
  stop: () => Promise<void>
}

/** Starts a server as the settings say; it answers when this does. @throws what keeps it from starting */
export async function serve(env: NodeJS.ProcessEnv): Promise<Served> {
  const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')
  const config = readConfig(env, root)
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
  const stop = async () => {
    publisher.published.emit('stop')
    http.close()
    http.closeAllConnections()
    for (const work of works.reverse()) await work.stop()
    await publisher.stop()
    await watch.stop()
    await Promise.all([pool.end(), changes.pool.end(), searching.pool.end(), endThreads()])
  }
  return { address: local, stop }
}
