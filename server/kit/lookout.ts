import type { SQL } from 'drizzle-orm'
import type { MySqlTable } from 'drizzle-orm/mysql-core'
import { anyLike } from './anyLike'
import type { Tx } from './database'
import { logger } from './logger'
import type { Service, Work } from './service'

/** Who acts when nobody does. */
export const CLOCK = { accountId: null, name: 'The clock' }

/** Looks again every so often, never twice at once; a look that fails is logged and tried again. @param what for the log: "watching targets" */
export function lookout(what: string, everyMs: number, look: () => Promise<unknown>): Work {
  let timer: NodeJS.Timeout | null = null
  let looking: Promise<unknown> = Promise.resolve()
  const again = () => {
    looking = looking.then(look).catch((error: unknown) => logger.error({ error }, `${what} failed; it is tried again`))
  }
  return {
    start() {
      timer = setInterval(again, everyMs)
      timer.unref()
    },
    async stop() {
      if (timer) clearInterval(timer)
      await looking
    },
  }
}

const BATCH = 100

/** Rows of a table that may be due at a moment: those that are, and perhaps some more. */
interface Due {
  table: MySqlTable
  where: (now: Date) => SQL | undefined
}

/**
 * Takes up what is due, some at a time, each lot in a transaction of its own, until there is less than a whole one. Several
 * servers share the rows: whoever takes locks them, passing over those another has. @param take answers how many it took
 */
export async function takeDue(service: Service, due: Due, take: (tx: Tx, now: Date, most: number) => Promise<number>): Promise<void> {
  const now = service.clock()
  if (!(await anyLike(service.writer, due.table, due.where(now)))) return
  for (;;) {
    const taken = await service.writer.transaction((tx) => take(tx, now, BATCH))
    if (taken) service.publisher.nudge()
    if (taken < BATCH) return
  }
}
