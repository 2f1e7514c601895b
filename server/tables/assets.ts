import { date, index, int, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { CONDITIONS, COVERS, CRITICALITIES, OWNERS } from '#core/assets'
import { id, inUse, minor } from './columns'
import { payers } from './ledger'
import { people } from './people'
import { places, sites } from './places'
import { vendors } from './vendors'

/** Anything that is maintained, with a tag: one tree beside the places. */
export const assets = mysqlTable(
  'asset',
  {
    id: id(),
    siteId: int('site_id')
      .notNull()
      .references(() => sites.id),
    parentId: int('parent_id').references((): AnyMySqlColumn => assets.id),
    placeId: int('place_id')
      .notNull()
      .references(() => places.id),
    /** "/4/19/": the ids from the outermost asset down to this one. */
    path: varchar('path', { length: 190 }).notNull().default(''),
    tag: varchar('tag', { length: 32 }).notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    /** UNIFORMAT II code. */
    classCode: varchar('class_code', { length: 12 }),
    maker: varchar('maker', { length: 80 }),
    model: varchar('model', { length: 80 }),
    serial: varchar('serial', { length: 80 }),
    installedOn: date('installed_on', { mode: 'string' }),
    priceMinor: minor('price_minor'),
    lifeYears: int('life_years'),
    warrantyFrom: date('warranty_from', { mode: 'string' }),
    warrantyUntil: date('warranty_until', { mode: 'string' }),
    warrantyCovers: varchar('warranty_covers', { length: 8, enum: COVERS }),
    warrantyTerms: text('warranty_terms'),
    condition: varchar('condition', { length: 12, enum: CONDITIONS }),
    criticality: varchar('criticality', { length: 12, enum: CRITICALITIES }),
    owner: varchar('owner', { length: 8, enum: OWNERS }).notNull().default('us'),
    successorId: int('successor_id').references((): AnyMySqlColumn => assets.id),
    note: text('note'),
    vendorId: int('vendor_id').references(() => vendors.id),
    payerId: int('payer_id').references(() => payers.id),
    /** Whom to ask about it: who runs it, lets somebody in, knows its ways. */
    contactId: int('contact_id').references((): AnyMySqlColumn => people.id),
    searchText: varchar('search_text', { length: 400 }).notNull(),
    ...inUse(),
  },
  (table) => [
    uniqueIndex('asset_tag').on(table.siteId, table.tag),
    index('asset_place').on(table.placeId),
    index('asset_path').on(table.path),
    index('asset_parent').on(table.parentId),
    index('asset_serial').on(table.serial),
    index('asset_name').on(table.siteId, table.name),
  ],
)
