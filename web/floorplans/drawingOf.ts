import type { Floorplan } from '#contract/floorplans'
import type { Drawing } from './drawn'

/** A plan as it is drawn. */
export const drawingOf = ({ spaces, assets, picture }: Floorplan): Drawing => ({
  spaces,
  assets,
  picture: picture && { ...picture, url: `/api/files/${picture.fileId}` },
})
