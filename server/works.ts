import { Sweeper } from '#server/kit'
import type { Works } from '#server/kit'
import { mailWorks } from '#server/mail'
import { orderWorks } from '#server/orders'

/** What every room keeps going, in the order in which it starts. */
export const WORKS: readonly Works[] = [mailWorks, orderWorks, (service) => [new Sweeper(service)]]
