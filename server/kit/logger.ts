import { pino } from 'pino'

/** Structured lines on standard error, so that standard output stays for people. */
export const logger = pino({ level: process.env.EVRIX_LOG ?? 'warn', serializers: { error: toLog } }, pino.destination(2))

/** An error as it is logged: what went wrong, where and why, and no value that somebody typed. */
export function toLog(error: unknown): object {
  if (!(error instanceof Error)) return { message: String(error) }
  const { code, errno } = error as { code?: string; errno?: number }
  // The database layer ends its message with the values of the statement.
  const [message] = error.message.split('\nparams:')
  const stack = error.stack?.split('\n').filter((line) => line.startsWith('    at '))
  return { type: error.name, message, code, errno, stack: stack?.slice(0, 12).join('\n'), ...(error.cause ? { cause: toLog(error.cause) } : {}) }
}
