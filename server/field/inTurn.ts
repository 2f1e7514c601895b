import pLimit from 'p-limit'
import type { Request } from 'express'
import { isHeardLater } from '#core/field'
import type { Route, Service } from '#server/kit'

/** Of what was recorded long before it arrives, so many are taken at once by a server: fifty phones that come back leave room for the desk (our own choice, measured by `npm run bench -- rounds`). */
const AT_ONCE = 4
const turn = pLimit(AT_ONCE)

/** Has what was done without signal wait for its turn; what happens now never waits for it. */
export const inTurn = (route: Route): Route => ({
  ...route,
  respond: (service, request, response) =>
    isLate(service, request) ? turn(() => route.respond(service, request, response)) : route.respond(service, request, response),
})

function isLate(service: Service, request: Request): boolean {
  const { happenedAt } = { ...request.query, ...(request.body as { happenedAt?: unknown } | undefined) }
  const at = new Date(String(happenedAt))
  return !Number.isNaN(at.getTime()) && isHeardLater(at, service.clock())
}
