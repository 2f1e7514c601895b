import { date, index, int, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { CONDITIONS, COVERS, CRITICALITIES, OWNERS, TRANSFER_KINDS, TRANSFER_STATES } from '#core/assets'
import { id, instant, inUse, minor, version } from './columns'
import { payers } from './ledger'
import { accounts, people } from './people'
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
    index('asset_find').on(table.tag, table.siteId, table.retiredAt, table.searchText),
  ],
)

/** An asset going to another place or site, for good or on loan. */
export const transfers = mysqlTable(
  'transfer',
  {
    id: id(),
    assetId: int('asset_id')
      .notNull()
      .references(() => assets.id),
    kind: varchar('kind', { length: 8, enum: TRANSFER_KINDS }).notNull(),
    state: varchar('state', { length: 12, enum: TRANSFER_STATES }).notNull(),
    fromSiteId: int('from_site_id')
      .notNull()
      .references(() => sites.id),
    fromPlaceId: int('from_place_id')
      .notNull()
      .references(() => places.id),
    /** What it was part of, so that a loan comes back to it. */
    fromParentId: int('from_parent_id').references(() => assets.id),
    toSiteId: int('to_site_id')
      .notNull()
      .references(() => sites.id),
    /** Who agrees may say it, where who asks does not know the place. */
    toPlaceId: int('to_place_id').references(() => places.id),
    reason: text('reason').notNull(),
    returnBy: date('return_by', { mode: 'string' }),
    askedBy: int('asked_by')
      .notNull()
      .references(() => accounts.id),
    askedAt: instant('asked_at').notNull(),
    decidedBy: int('decided_by').references(() => accounts.id),
    decidedAt: instant('decided_at'),
    note: text('note'),
    returnedAt: instant('returned_at'),
    version: version(),
  },
  (table) => [
    index('transfer_asset').on(table.assetId, table.id),
    index('transfer_from').on(table.fromSiteId, table.state, table.id),
    index('transfer_to').on(table.toSiteId, table.state, table.id),
  ],
)
