import * as contract from '#contract/floorplans'
import { query } from '#server/kit'
import { floorplanOf, planPlace } from './floorplan'

export default query(contract.readFloorplan, async ({ db, who, input, now }) => floorplanOf(db, who, await planPlace(db, who, input.id), now))
