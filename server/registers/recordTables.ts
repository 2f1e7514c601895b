import type { RegisterName } from '#core/registers'
import { assets, equipment, methods, parts, payers, people, places, stores, teams, vendors } from '../tables'
import type { RecordTable } from './keeper'

/** Where the records of every register are. */
export const RECORD_TABLES: Record<RegisterName, RecordTable> = { places, assets, people, teams, vendors, payers, parts, stores, equipment, methods }
