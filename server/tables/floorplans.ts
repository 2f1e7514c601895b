import { double, index, int, json, mysqlTable, smallint } from 'drizzle-orm/mysql-core'
import type { Shape } from '#core/floorplans'
import { assets } from './assets'
import { version } from './columns'
import { attachments } from './kit'
import { places } from './places'

/** The plan of a floor: begun when something is first drawn on it. */
export const floorplans = mysqlTable('floorplan', {
  placeId: int('place_id')
    .primaryKey()
    .references(() => places.id),
  version: version(),
  /** What lies under it: lower left corner and width in metres, strength in percent. */
  pictureId: int('picture_id').references(() => attachments.id),
  pictureLeft: double('picture_left'),
  pictureBottom: double('picture_bottom'),
  pictureWidth: double('picture_width'),
  pictureStrength: smallint('picture_strength'),
})

/** A space as it is drawn. It counts while the space is on that floor: one that is moved is drawn anew there. */
export const spaceShapes = mysqlTable(
  'space_shape',
  {
    spaceId: int('space_id')
      .primaryKey()
      .references(() => places.id),
    planId: int('plan_id')
      .notNull()
      .references(() => floorplans.placeId),
    shape: json('shape').$type<Shape>().notNull(),
  },
  (table) => [index('space_shape_plan').on(table.planId)],
)

/** Where an asset stands on the plan of its floor, in metres. It counts while the asset is on that floor. */
export const assetPins = mysqlTable(
  'asset_pin',
  {
    assetId: int('asset_id')
      .primaryKey()
      .references(() => assets.id),
    planId: int('plan_id')
      .notNull()
      .references(() => floorplans.placeId),
    /** Null once it was taken off: the version goes on. */
    east: double('east'),
    north: double('north'),
    version: version(),
  },
  (table) => [index('asset_pin_plan').on(table.planId)],
)
