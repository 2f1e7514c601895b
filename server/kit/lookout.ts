import { logger } from './logger'
import type { Work } from './service'

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
