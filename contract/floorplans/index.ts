import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { FARTHEST } from '#core/floorplans'
import type { PlanRow, Point, Shape } from '#core/floorplans'
import type { PlaceKind } from '#core/places'

export interface PlanSpace {
  id: number
  code: string
  name: string
  /** Null while it is not drawn. */
  shape: Shape | null
  openOrders: number
  lateOrders: number
}

export interface PlanAsset {
  id: number
  tag: string
  name: string
  /** The space it stands in by its record. */
  placeId: number
  /** Null while it has no pin. */
  at: Point | null
  /** Of its pin; 0 before it had one. */
  pinVersion: number
  openOrders: number
  lateOrders: number
}

/** A picture that lies under the plan: its lower left corner and its width in metres, how strongly it shows in percent. */
export interface PlanPicture {
  fileId: number
  name: string
  left: number
  bottom: number
  width: number
  /** Follows from the width. */
  height: number
  strength: number
}

export interface Floorplan {
  /** What the plan is of: a floor, or grounds or a building with spaces of its own. */
  place: { id: number; siteId: number; code: string; name: string; kind: PlaceKind; within: string }
  /** Of what is drawn and lies under it; pins have versions of their own. */
  version: number
  /** Why it cannot be changed by who asks; null when it can. */
  whyNot: string | null
  picture: PlanPicture | null
  spaces: PlanSpace[]
  assets: PlanAsset[]
}

interface OfPlan {
  /** The place the plan is of. */
  id: number
}
const ofPlan = { id: field.id().required() }
/** Metres from the corner of the floor. */
const metres = () => Joi.number().min(-FARTHEST).max(FARTHEST)

export const readFloorplan = endpoint<OfPlan, Floorplan>({
  method: 'GET',
  path: '/api/floorplans/:id',
  says: 'The plan of a floor, or of a building or grounds with spaces of their own: spaces and assets with their open work, in metres.',
  may: 'desk.read',
  input: Joi.object<OfPlan, true>(ofPlan),
})

export interface PlanNamed {
  /** Of the place the plan is of. */
  id: number
  code: string
  name: string
  within: string
  /** How many of its spaces are drawn. */
  drawn: number
  spaces: number
}

export const listFloorplans = endpoint<object, { rows: PlanNamed[] }>({
  method: 'GET',
  path: '/api/floorplans',
  says: 'What has spaces and so can have a plan, site by site.',
  may: 'desk.read',
})

/** Where something is drawn: its plan, itself on it, or nothing. */
export const findOnFloorplan = endpoint<{ kind: 'places' | 'assets'; id: number }, { planId: number | null; drawn: boolean }>({
  method: 'GET',
  path: '/api/floorplans/of/:kind/:id',
  says: 'On which plan a place or an asset is.',
  may: 'desk.read',
  input: Joi.object<{ kind: 'places' | 'assets'; id: number }, true>({ kind: field.oneOf(['places', 'assets']).required(), id: field.id().required() }),
})

export interface PinMove extends OfPlan {
  assetId: number
  /** Of the pin as it was seen; 0 when it had none. */
  version: number
  /** Where it goes; null takes it off the plan. */
  at: Point | null
}

export const movePin = endpoint<PinMove, Floorplan>({
  method: 'POST',
  path: '/api/floorplans/:id/pins',
  says: 'Put the pin of an asset somewhere on its floor, or take it off. The record of the asset stays as it is.',
  may: 'registers.edit',
  input: Joi.object<PinMove, true>({
    ...ofPlan,
    assetId: field.id().required(),
    version: Joi.number().integer().min(0).required(),
    at: Joi.array().ordered(metres().required(), metres().required()).allow(null).required() as never,
  }),
})

export const eraseSpace = endpoint<OfPlan & { version: number; spaceId: number }, Floorplan>({
  method: 'POST',
  path: '/api/floorplans/:id/erase',
  says: 'Take a space off the plan. Its record stays as it is.',
  may: 'registers.edit',
  input: Joi.object<OfPlan & { version: number; spaceId: number }, true>({
    ...ofPlan,
    version: Joi.number().integer().min(0).required(),
    spaceId: field.id().required(),
  }),
})

export interface PlanReport {
  rows: Omit<PlanRow, 'shape' | 'at'>[]
  counts: Record<PlanRow['standing'], number>
  /** Drawn now and not in the file: they stay. */
  left: number
  taken: boolean
}

interface TakePlan extends OfPlan {
  name?: string
  /** Take the good rows in; without it, only look. */
  take?: boolean
  /** Make the spaces that are not in the register yet. */
  make?: boolean
}

export const takeFloorplan = endpoint<TakePlan, PlanReport>({
  method: 'POST',
  path: '/api/floorplans/:id/geojson',
  says: 'Hold a GeoJSON file (RFC 7946, in metres) against the plan; with "take", draw what is good in it.',
  may: 'registers.edit',
  upload: true,
  input: Joi.object<TakePlan, true>({ ...ofPlan, name: Joi.string().max(200), take: Joi.boolean(), make: Joi.boolean() }),
})

export const giveFloorplan = endpoint<OfPlan, Blob>({
  method: 'GET',
  path: '/api/floorplans/:id/geojson',
  says: 'The plan as GeoJSON (RFC 7946, in metres): spaces as polygons, assets as points.',
  may: 'desk.read',
  answers: 'file',
  input: Joi.object<OfPlan, true>(ofPlan),
})

export const layPicture = endpoint<OfPlan & { version: number }, Floorplan>({
  method: 'POST',
  path: '/api/floorplans/:id/picture',
  says: 'Lay a picture under the plan, as wide as what is drawn.',
  may: 'registers.edit',
  upload: true,
  input: Joi.object<OfPlan & { version: number }, true>({ ...ofPlan, version: Joi.number().integer().min(0).required() }),
})

export interface PictureEdit extends OfPlan {
  version: number
  /** Null takes the picture away. */
  picture: { left: number; bottom: number; width: number; strength: number } | null
}

export const movePicture = endpoint<PictureEdit, Floorplan>({
  method: 'PATCH',
  path: '/api/floorplans/:id/picture',
  says: 'Say where the picture under the plan lies, how wide it is and how strongly it shows; or take it away.',
  may: 'registers.edit',
  input: Joi.object<PictureEdit, true>({
    ...ofPlan,
    version: Joi.number().integer().min(0).required(),
    picture: Joi.object({
      left: metres().required(),
      bottom: metres().required(),
      width: Joi.number().min(0.1).max(FARTHEST).required(),
      strength: Joi.number().integer().min(5).max(100).required(),
    })
      .allow(null)
      .required(),
  }),
})

/** What strangers see: the rooms, and the machines where the Counter asks for them. */
export interface CounterPlan {
  place: { id: number; code: string; name: string }
  spaces: { id: number; code: string; name: string; shape: Shape }[]
  assets: { tag: string; name: string; at: Point }[]
}

export const listCounterPlans = endpoint<{ site: string }, { rows: { id: number; code: string; name: string; within: string }[] }>({
  method: 'GET',
  path: '/api/counter/:site/floorplans',
  says: 'The floors of a site that are drawn, for those who report.',
  may: 'public',
  input: Joi.object<{ site: string }, true>({ site: Joi.string().max(8).required() }),
})

export const readCounterPlan = endpoint<{ site: string; id: number }, CounterPlan>({
  method: 'GET',
  path: '/api/counter/:site/floorplans/:id',
  says: 'A floor as it is drawn, for those who report.',
  may: 'public',
  input: Joi.object<{ site: string; id: number }, true>({ site: Joi.string().max(8).required(), id: field.id().required() }),
})
