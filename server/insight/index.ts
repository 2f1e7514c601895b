import type { Route } from '#server/kit'
import followLive from './followLive'
import readFigures from './readFigures'
import readFlow from './readFlow'

export const routes: Route[] = [readFlow, readFigures, followLive]
