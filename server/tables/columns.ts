import { customType, datetime, int, varchar } from 'drizzle-orm/mysql-core'

/** A UTC instant, to the millisecond. */
export const instant = (name: string) => datetime(name, { mode: 'date', fsp: 3 })

/** Money in minor units of the site's currency. */
export const minor = (name: string) => int(name)

/** A share or a rate in basis points. */
export const basisPoints = (name: string) => int(name)

export const id = () => int('id').primaryKey().autoincrement()

/** SHA-256 of an unguessable token, in hex: the token itself is never stored. */
export const tokenHash = (name: string) => varchar(name, { length: 64 })

/** Raised by one on every edit; a stale one is refused. */
export const version = () => int('version').notNull().default(1)

export const mediumblob = customType<{ data: Buffer }>({ dataType: () => 'mediumblob' })

/** Of a record of a register: edited by version, and retired rather than deleted. */
export const inUse = () => ({ version: version(), retiredAt: instant('retired_at') })
