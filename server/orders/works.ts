import type { Works } from '#server/kit'
import { targetWatch } from './targetWatch'

/** Promises that become close or past are told of. */
export const orderWorks: Works = (service) => [targetWatch(service)]
