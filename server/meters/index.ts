import type { Route } from '#server/kit'
import { addMeter, readMeters, retireMeter, strikeReading } from './meters'
import { addReading, takeReading } from './takeReading'

export { addReadingOn } from './takeReading'
export const routes: Route[] = [readMeters, addMeter, retireMeter, strikeReading, takeReading, addReading]
