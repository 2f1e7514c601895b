import type { Pool } from 'mysql2/promise'
import type { Clock } from './clock'
import type { Config } from './config'
import type { Db } from './database'
import type { Presence } from './presence'
import type { Publisher } from './publisher'
import type { LinkMaker } from './tokens'

/** What commands and queries may use besides their input. */
export interface Service {
  config: Config
  db: Db
  /** For changes alone: those who wait for each other’s rows never keep a reader waiting. */
  writer: Db
  /** For words looked for in everything: a statement of it that takes long is given up. */
  searcher: Db
  pool: Pool
  clock: Clock
  links: LinkMaker
  publisher: Publisher
  presence: Presence
  /** Where people reach this installation, without a slash at the end. */
  publicUrl: () => string
}

/** Something a room keeps going beside answering requests. */
export interface Work {
  start: () => void | Promise<void>
  stop: () => Promise<void>
}
/** What a room has going, made once the server can be reached; in the order in which it starts, and ends the other way round. */
export type Works = (service: Service) => Work[]
