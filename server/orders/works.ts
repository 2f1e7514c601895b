import type { Works } from '#server/kit'
import { TargetWatch } from './targetWatch'

/** Promises that become close or past are told of. */
export const orderWorks: Works = (service) => [new TargetWatch(service)]
