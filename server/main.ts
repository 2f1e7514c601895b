import { logger } from '#server/kit'
import { serve } from './serve'

/** Starts the server, prints "listening <address>" when ready, and ends cleanly on SIGTERM. */
async function main(): Promise<void> {
  const served = await serve(process.env)
  process.stdout.write(`listening ${served.address}\n`)
  const stop = async () => {
    // Whatever does not end in time is ended with the process.
    setTimeout(() => process.exit(1), 10_000).unref()
    await served.stop()
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
