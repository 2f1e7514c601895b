import type { Point, Shape } from '#core/floorplans'

/** A space as it is drawn, with what is told of it; without work where it is not asked for. */
export interface DrawnSpace {
  id: number
  code: string
  name: string
  shape: Shape | null
  openOrders?: number
  lateOrders?: number
}
export interface DrawnAsset {
  id: number
  tag: string
  name: string
  at: Point | null
  openOrders?: number
  lateOrders?: number
}
export interface Drawing {
  spaces: DrawnSpace[]
  assets: DrawnAsset[]
  picture?: { url: string; left: number; bottom: number; width: number; height: number; strength: number } | null
}
/** What is chosen on a plan. */
export interface OnPlan {
  kind: 'space' | 'asset'
  id: number
}
export const sameOnPlan = (a: OnPlan | null, b: OnPlan | null): boolean => a?.kind === b?.kind && a?.id === b?.id

/** "3 open, 1 late", or nothing. */
export const workSays = ({ openOrders = 0, lateOrders = 0 }: { openOrders?: number; lateOrders?: number }): string =>
  [openOrders ? `${openOrders} open` : '', lateOrders ? `${lateOrders} late` : ''].filter(Boolean).join(', ')
