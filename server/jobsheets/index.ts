import type { Route } from '#server/kit'
import { findJob, printDay, printMyDay, printOrder } from './print'

export { bringOf, earlierOn } from './jobPaper'
export const routes: Route[] = [printOrder, printDay, printMyDay, findJob]
