import { pino } from 'pino'

/** Structured lines on standard error, so that standard output stays for people. */
export const logger = pino({ level: process.env.EVRIX_LOG ?? 'warn' }, pino.destination(2))
