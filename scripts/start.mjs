import { mkdirSync } from 'node:fs'
import path from 'node:path'
import { ensureInstalled, root } from './kit/tools.mjs'

const began = Date.now()
const dataDir = path.resolve(process.env.EVRIX_DATA_DIR ?? path.join(root, '.evrix'))
mkdirSync(dataDir, { recursive: true })
await ensureInstalled(process.env.EVRIX_DATABASE_URL ? {} : { mariadbd: 'mariadb-server' })

const { ensureSchema, freePort, startDatabase } = await import('./kit/database.mjs')
const { claimFolder } = await import('./kit/folders.mjs')
const { buildApart, keepRunning, runProgram, startProgram } = await import('./kit/processes.mjs')

/** What has been started, to be ended in the reverse order. */
const running = []
let ending = false
async function end(code) {
  if (ending) return
  ending = true
  for (const part of running.reverse()) await part.stop()
  process.exit(code)
}
// A terminal that is closed ends it as Ctrl C does.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0))
const giveUp = (sentence) => {
  console.error(sentence)
  void end(1)
}

try {
  const release = claimFolder(dataDir)
  running.push({ stop: () => Promise.resolve(release()) })
  await buildApart()
  let databaseUrl = process.env.EVRIX_DATABASE_URL
  if (!databaseUrl) {
    // Where it was the first time, it comes back to: the server looks for it there.
    let port = null
    const database = await keepRunning(
      'The database',
      async () => {
        const started = await startDatabase(dataDir, { port })
        port = started.port
        return started
      },
      giveUp,
    )
    running.push(database)
    databaseUrl = await ensureSchema(database.part.url, 'evrix')
  }
  const env = { EVRIX_DATA_DIR: dataDir, EVRIX_DATABASE_URL: databaseUrl }
  await runProgram('demo', env)
  // The stand-in passes mail for the desks on to the server, which therefore needs an address before it runs.
  const inboundPort = process.env.EVRIX_INBOUND_PORT ?? String(await freePort())
  const mailEnv = { EVRIX_SMTP_PORT: String(await freePort()), EVRIX_MAIL_PORT: String(await freePort()) }
  const mail = process.env.EVRIX_SMTP_URL
    ? null
    : await keepRunning('The mail server', () => startProgram('mail', { ...env, ...mailEnv, EVRIX_INBOUND_URL: `smtp://127.0.0.1:${inboundPort}` }), giveUp)
  if (mail) running.push(mail)
  const bookingsEnv = { EVRIX_BOOKINGS_PORT: String(await freePort()) }
  const bookings = process.env.EVRIX_CALDAV_URL
    ? null
    : await keepRunning('The bookings system', () => startProgram('bookings', { ...env, ...bookingsEnv }), giveUp)
  if (bookings) running.push(bookings)
  const port =
    process.env.PORT && process.env.PORT !== '0' ? process.env.PORT : String(await (process.env.PORT === '0' ? freePort() : preferred(4600, freePort)))
  const serverEnv = {
    ...env,
    PORT: port,
    EVRIX_INBOUND_PORT: inboundPort,
    EVRIX_SMTP_URL: process.env.EVRIX_SMTP_URL ?? mail.part.addresses[0],
    EVRIX_CALDAV_URL: process.env.EVRIX_CALDAV_URL ?? `${bookings.part.addresses[0]}/calendars/`,
  }
  const server = await keepRunning('The server', () => startProgram('main', serverEnv), giveUp)
  running.push(server)
  greet(process.env.EVRIX_PUBLIC_URL ?? server.part.addresses[0], mail?.part.addresses[1], inboundPort, bookings?.part.addresses[0])
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  await end(1)
}

/** This port when it is free, otherwise any that is. */
async function preferred(port, otherwise) {
  const { createServer } = await import('node:net')
  const free = await new Promise((resolve) => {
    const probe = createServer()
      .once('error', () => resolve(false))
      .listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
  return free ? port : otherwise()
}

function greet(address, mailAddress, inboundPort, bookingsAddress) {
  console.log(`
Evrix is ready after ${((Date.now() - began) / 1000).toFixed(1)} s.

  The Desk              ${address}
  The Counter           ${address}/c/SKE   (second site: ${address}/c/MUS)
  Rounds                ${address}/rounds
  Received mail         ${mailAddress ?? 'goes to your own mail server'}
  Room bookings         ${bookingsAddress ?? 'are your own bookings system'}
  Mail to the desk      desk-ske@skerry.example, by SMTP on port ${inboundPort}

  Everybody's password in the demo world is  slack-tide-42
  maren.quill@skerry.example            coordinator
  ines.ferrall@skerry.example           approver, to 2,500.00
  osric.vane@skerry.example             approver, to 25,000.00
  petra.lindqvist@skerry.example        billing clerk
  yusuf.adeyemi-rourke@skerry.example   manager
  wendeline.stroud@skerry.example       administrator
  fintan.rosewarne@skerry.example       technician, plumbing

End it with Ctrl C; the data stays.`)
}
