import { execFileSync, spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { freePort, startDatabase } from '../../scripts/kit/database.mjs'
import { createConnection } from 'mysql2/promise'
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { runToEnd, startProgram } from './programs'
import type { Running } from './programs'
import { startServer } from './servers'

type Database = Awaited<ReturnType<typeof startDatabase>>

/** One installation of its own: a database, a data folder, a mail server, and servers that come and go. */
export class House {
  private readonly parts: { stop: () => Promise<void> }[] = []
  /** Its own server, where it lives in a copy of the world. */
  ownDatabase: Database | null = null
  /** The bookings system that is told of closures. */
  bookings: Awaited<ReturnType<typeof startProgram>> | null = null

  private constructor(
    readonly databaseUrl: string,
    readonly folder: string,
    private env: NodeJS.ProcessEnv,
    readonly mailUrl: string | null,
  ) {}

  /**
   * With the demo world as it was at `now`, unless asked to stay empty. Its database is reached by its socket, which
   * takes less of the processor than the network; by its port where it goes away and comes back at the same.
   */
  static async open(
    name: string,
    options: { now?: string; env?: NodeJS.ProcessEnv; mail?: boolean; bookings?: boolean; byPort?: boolean } = {},
  ): Promise<House> {
    const base = process.env.EVRIX_TEST_FOLDER ?? tmpdir()
    mkdirSync(base, { recursive: true })
    const folder = mkdtempSync(path.join(base, `${name}-`))
    const world = options.now === undefined ? process.env.EVRIX_TEST_WORLD : undefined
    const own = world ? await ownWorld(world, path.join(folder, 'database')) : null
    const env: NodeJS.ProcessEnv = {
      ...process.env,
      EVRIX_DATABASE_URL: own ? `${own.url}/evrix_world${options.byPort ? '' : `?socketPath=${own.socket}`}` : await freshDatabase(name),
      EVRIX_DATA_DIR: folder,
      EVRIX_NOW: options.now ?? '2026-11-23T10:30:00Z',
      PORT: '0',
      EVRIX_LOG: 'error',
      EVRIX_PUBLIC_PER_MINUTE: '100000',
      EVRIX_LOGINS_PER_MINUTE: '100000',
      ...options.env,
    }
    if (options.mail) env.EVRIX_INBOUND_PORT = String(await freePort())
    const mail = options.mail ? await startProgram('dist/server/mail.js', { ...env, EVRIX_INBOUND_URL: `smtp://127.0.0.1:${env.EVRIX_INBOUND_PORT}` }) : null
    if (mail) env.EVRIX_SMTP_URL = mail.addresses[0]
    if (options.bookings) env.EVRIX_BOOKINGS_PORT = String(await freePort())
    const bookings = options.bookings ? await startProgram('dist/server/bookings.js', env) : null
    if (bookings) env.EVRIX_CALDAV_URL = `${bookings.addresses[0]!}/calendars/`
    const house = new House(env.EVRIX_DATABASE_URL!, folder, env, mail?.addresses[1] ?? null)
    house.ownDatabase = own
    if (mail) house.parts.push(mail)
    if (bookings) {
      house.bookings = bookings
      house.parts.push({ stop: () => house.bookings!.stop() })
    }
    if (!own) await runToEnd('dist/server/demo.js', env)
    return house
  }

  async start(env: NodeJS.ProcessEnv = {}): Promise<Running> {
    const server = await startServer({ ...this.env, ...env }, this.folder)
    this.parts.push(server)
    return server
  }

  /** Where the bookings system keeps the calendars of the spaces. */
  get calendars(): string {
    return `${this.bookings!.addresses[0]!}/calendars/`
  }

  /** The bookings system goes away, and comes back under the same address. */
  async restartBookings(meanwhile: () => Promise<unknown> = () => Promise.resolve()): Promise<void> {
    await this.bookings!.stop()
    await meanwhile().finally(async () => {
      this.bookings = await startProgram('dist/server/bookings.js', this.env)
    })
  }

  /** Where mail for the desks comes in. */
  get inboundPort(): number {
    return Number(this.env.EVRIX_INBOUND_PORT)
  }

  /** Rows straight from the database, to see what is really there. */
  async rows<Row = Record<string, unknown>>(sql: string, values: unknown[] = []): Promise<Row[]> {
    const connection = await this.connect()
    try {
      for (let tries = 1; ; tries++)
        try {
          const [rows] = await connection.query<RowDataPacket[]>(sql, values)
          return rows as Row[]
        } catch (error) {
          // What the server keeps going may want the same rows in another order.
          if ((error as { errno?: number }).errno !== DEADLOCK || tries === MOST_TRIES) throw error
        }
    } finally {
      await connection.end()
    }
  }

  connect(): Promise<Connection> {
    return createConnection({ uri: this.databaseUrl, timezone: 'Z' })
  }

  /** What an address received, newest first; waits until there is something that fits. */
  async mail(to: string, fits: (mail: { subject: string; text: string }) => boolean = () => true): Promise<{ subject: string; text: string }> {
    for (let tries = 0; tries < 100; tries++) {
      const answer = await fetch(`${this.mailUrl}/mails.json?to=${encodeURIComponent(to)}`)
      const found = ((await answer.json()) as { subject: string; text: string }[]).find(fits)
      if (found) return found
      await new Promise((resolve) => setTimeout(resolve, 150))
    }
    throw new Error(`No fitting mail arrived for ${to}.`)
  }

  async close(): Promise<void> {
    for (const part of this.parts.reverse()) await part.stop()
    await this.ownDatabase?.stop()
    // Two seconds of the disk, for which the next suite need not wait.
    spawn('rm', ['-rf', this.databaseFolder], { detached: true, stdio: 'ignore' }).unref()
  }

  /** Where the files of its own server are. */
  get databaseFolder(): string {
    return path.join(this.folder, 'database')
  }
}

/** The demo world with a server of its own, from files made once for all tests: copying them is ten times quicker than loading a dump. */
async function ownWorld(world: string, folder: string): Promise<Database> {
  execFileSync('cp', ['-a', '--sparse=always', world, folder])
  return startDatabase(folder, { quick: true })
}

/** A database that is empty as yet, on the server all tests share. */
async function freshDatabase(name: string): Promise<string> {
  const server = process.env.EVRIX_TEST_DATABASE
  if (!server) throw new Error('EVRIX_TEST_DATABASE is not set: run the tests with “npm test”.')
  const schema = `evrix_${name}_${process.pid}`
  const connection = await createConnection(server)
  await connection.query(`DROP DATABASE IF EXISTS ${schema}`)
  await connection.query(`CREATE DATABASE ${schema} CHARACTER SET utf8mb4 COLLATE utf8mb4_general_ci`)
  await connection.end()
  return `${server}/${schema}`
}

const DEADLOCK = 1213
const MOST_TRIES = 5
