import type { Route } from '#server/kit'
import readBoard from './readBoard'

export const routes: Route[] = [readBoard]
