import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { logger, makeClock, makeLinks, openDatabase, Presence, Publisher, readConfig, readSecret, runMigrations } from '#server/kit'
import type { Service } from '#server/kit'
import { MailReader, Mailroom, mailWriter, Postman } from '#server/mail'
import { TargetWatch } from '#server/orders'
import { makeApp } from './app'

/** Starts the server, prints "listening <address>" when ready, and ends cleanly on SIGTERM. */
async function main(): Promise<void> {
  const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')
  const config = readConfig(process.env, root)
  const { db, pool } = openDatabase(config.databaseUrl)
  const changes = openDatabase(config.databaseUrl, 8)
  await runMigrations(pool, config.migrationsDir)
  let address = config.publicUrl ?? ''
  const links = makeLinks(readSecret(config.dataDir))
  const publisher: Publisher = new Publisher(db, [mailWriter(() => service)])
  const service: Service = {
    config,
    db,
    writer: changes.db,
    pool,
    clock: makeClock(config.now),
    links,
    publisher,
    presence: new Presence(publisher.published),
    publicUrl: () => address,
  }
  const http = createServer(makeApp(service))
  // Longer than any client or proxy keeps a quiet line, so that none is closed under a request on its way.
  http.keepAliveTimeout = 65_000
  await new Promise<void>((resolve, reject) => http.once('error', reject).listen(config.port, '127.0.0.1', resolve))
  address ||= `http://127.0.0.1:${(http.address() as AddressInfo).port}`
  const postman = config.smtpUrl ? new Postman(service, config.smtpUrl) : null
  postman?.start()
  const mailReader = new MailReader(service)
  const mailroom = config.inboundPort === null ? null : new Mailroom(service, mailReader)
  if (mailroom) {
    await mailroom.listen(config.inboundPort!)
    mailReader.start()
  }
  const watch = new TargetWatch(service)
  watch.start()
  publisher.nudge()
  process.stdout.write(`listening ${address}\n`)
  const stop = async () => {
    publisher.published.emit('stop')
    http.close()
    http.closeAllConnections()
    await watch.stop()
    await mailroom?.stop()
    await mailReader.stop()
    await publisher.stop()
    await postman?.stop()
    await Promise.all([pool.end(), changes.pool.end()])
    process.exit(0)
  }
  process.once('SIGTERM', () => void stop())
  process.once('SIGINT', () => void stop())
}

main().catch((error: unknown) => {
  logger.fatal({ error }, 'the server could not start')
  process.stderr.write(`The server could not start: ${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
