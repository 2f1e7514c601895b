import { EventEmitter } from 'node:events'
import { createConnection } from 'mysql2/promise'
import type { Connection, Pool } from 'mysql2/promise'
import { logger } from './logger'

const LOOK_MS = 700
const PATIENCE_MS = 1_500

/** The database cannot be reached for now. */
export class DatabaseAway extends Error {
  constructor(why: string) {
    super(`The database is away: ${why}`)
  }
}

/** What a connection of the driver is made of, as far as it is needed to break one that hangs. */
interface Wire {
  stream: { destroy: (error: Error) => void }
  once: (event: 'end' | 'error', listener: () => void) => void
}

/**
 * Looks after the database on a line of its own. When it does not answer, also because it was stopped
 * rather than ended, every statement under way fails at once, and so does every new one until it answers again:
 * nobody waits for what does not come.
 */
export class DatabaseWatch {
  private readonly wires = new Set<Wire>()
  private readonly changes = new EventEmitter().setMaxListeners(0)
  private line: Connection | null = null
  private timer: NodeJS.Timeout | null = null
  private stopped = false
  private gone = false

  constructor(private readonly options: { uri: string; connectTimeout: number }) {}

  get away(): boolean {
    return this.gone
  }

  start(): void {
    const look = async () => {
      const answers = await this.answers()
      if (this.stopped) return
      if (answers === this.gone) this.change(!answers)
      this.timer = setTimeout(() => void look(), LOOK_MS)
      this.timer.unref()
    }
    void look()
  }

  async stop(): Promise<void> {
    this.stopped = true
    if (this.timer) clearTimeout(this.timer)
    await this.line?.end().catch(() => undefined)
  }

  /** Connections of this pool are broken when the database goes away. */
  guard(pool: Pool): void {
    pool.on('connection', (connection) => {
      const wire = connection as unknown as Wire
      this.wires.add(wire)
      const forget = () => this.wires.delete(wire)
      wire.once('end', forget)
      wire.once('error', forget)
    })
  }

  /** What was promised, or DatabaseAway as soon as the database is, or when it takes longer than this. `late` gets what comes afterwards. */
  orAway<T>(promised: Promise<T>, mostMs: number, late: (value: T) => void): Promise<T> {
    return new Promise((resolve, reject) => {
      let over = false
      const end = (how: () => void) => {
        if (over) return
        over = true
        clearTimeout(timer)
        this.changes.off('away', leave)
        how()
      }
      const leave = () => end(() => reject(new DatabaseAway('it does not answer')))
      const timer = setTimeout(() => end(() => reject(new DatabaseAway('too many are waiting'))), mostMs)
      this.changes.once('away', leave)
      promised.then(
        (value) => (over ? late(value) : end(() => resolve(value))),
        (error: Error) => end(() => reject(error)),
      )
      if (this.gone) leave()
    })
  }

  /** Twice, so that a moment in which this process itself was busy does not count. */
  private async answers(): Promise<boolean> {
    return (await this.ping()) || (!this.gone && (await this.ping()))
  }

  private async ping(): Promise<boolean> {
    try {
      return await within(PATIENCE_MS, async () => {
        this.line ??= await createConnection(this.options)
        await this.line.query('SELECT 1')
        return true
      })
    } catch (error) {
      logger.debug({ error }, 'the database does not answer')
      this.line?.destroy()
      this.line = null
      return false
    }
  }

  private change(gone: boolean): void {
    this.gone = gone
    if (!gone) return logger.warn('the database answers again')
    logger.error('the database does not answer; everything waits for it')
    this.changes.emit('away')
    for (const wire of this.wires) wire.stream.destroy(new DatabaseAway('it stopped answering'))
    this.wires.clear()
  }
}

/** @throws Error when it takes longer; what came in before the time was looked at still counts */
function within<T>(ms: number, work: () => Promise<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => setImmediate(() => reject(new Error(`Nothing came within ${ms} ms.`))), ms)
    work()
      .then(resolve, reject)
      .finally(() => clearTimeout(timer))
  })
}
