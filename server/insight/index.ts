import type { Route } from '#server/kit'
import followLive from './followLive'
import readFigures from './readFigures'
import readFlow from './readFlow'
import readStation from './readStation'
import showPresence from './showPresence'

export const routes: Route[] = [readFlow, readStation, showPresence, readFigures, followLive]
