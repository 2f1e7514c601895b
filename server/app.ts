import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import path from 'node:path'
import compression from 'compression'
import cookieParser from 'cookie-parser'
import express from 'express'
import type { Express, NextFunction, Request, Response } from 'express'
import { ipKeyGenerator, rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import { isOpenDoor } from '#contract/kit'
import { routes as approvals } from '#server/approvals'
import { routes as assets } from '#server/assets'
import { routes as board } from '#server/board'
import { routes as closures } from '#server/closures'
import { routes as cobie } from '#server/cobie'
import { routes as dayplans } from '#server/dayplans'
import { routes as devices } from '#server/devices'
import { routes as dispatch } from '#server/dispatch'
import { routes as documents } from '#server/documents'
import { routes as field } from '#server/field'
import { routes as findings } from '#server/findings'
import { routes as spots } from '#server/spots'
import { routes as talk } from '#server/talk'
import { routes as floorplans } from '#server/floorplans'
import { routes as help } from '#server/help'
import { routes as insight } from '#server/insight'
import { answerProblem, notFound, ProblemReply } from '#server/kit'
import type { Route, Service } from '#server/kit'
import { routes as lists } from '#server/lists'
import { routes as mail } from '#server/mail'
import { open311 } from '#server/open311'
import { routes as orders } from '#server/orders'
import { routes as own } from '#server/own'
import { routes as people } from '#server/people'
import { routes as places } from '#server/places'
import { routes as portraits } from '#server/portraits'
import { routes as preventive } from '#server/preventive'
import { routes as requests } from '#server/requests'
import { routes as setup } from '#server/setup'
import { routes as meters } from '#server/meters'
import { routes as methods } from '#server/methods'
import { routes as stock } from '#server/stock'
import { routes as readiness } from '#server/readiness'
import { routes as templates } from '#server/templates'
import { routes as bookings } from '#server/bookings'
import { resumable, UPLOADS_PATH } from '#server/uploads'
import { routes as vendors } from '#server/vendors'
import { routes as quotes } from '#server/quotes'
import { routes as jobsheets } from '#server/jobsheets'
import { routes as downtimes } from '#server/downtimes'
import { routes as feeds } from '#server/feeds'
import { routes as shifts } from '#server/shifts'
import { routes as travel } from '#server/travel'
import { routes as windows } from '#server/windows'
import { routes as ledger } from './ledger/routes'

export const routes: Route[] = [
  ...people,
  ...requests,
  ...help,
  ...mail,
  ...lists,
  ...orders,
  ...approvals,
  ...dispatch,
  ...field,
  ...devices,
  ...vendors,
  ...windows,
  ...travel,
  ...shifts,
  ...downtimes,
  ...feeds,
  ...jobsheets,
  ...quotes,
  ...closures,
  ...board,
  ...dayplans,
  ...ledger,
  ...places,
  ...assets,
  ...stock,
  ...bookings,
  ...templates,
  ...readiness,
  ...meters,
  ...methods,
  ...portraits,
  ...own,
  ...findings,
  ...spots,
  ...talk,
  ...floorplans,
  ...documents,
  ...cobie,
  ...preventive,
  ...insight,
  ...setup,
]

/** The whole server as an Express application. */
export function makeApp(service: Service): Express {
  const app = express()
  app.disable('x-powered-by')
  // Whose word is taken for where a caller comes from, and for the line being encrypted.
  app.set('trust proxy', service.config.trustedProxies)
  app.use(securityHeaders(service))
  const squeezed: typeof compression.filter = (request, response) => !request.path.startsWith('/api/live') && compression.filter(request, response)
  // What fits into a few packets is there sooner as it is.
  app.use(compression({ level: 1, threshold: '8kb', filter: squeezed }))
  app.use(cookieParser())
  app.use('/api', sameOriginOnly(service), express.json({ limit: '256kb' }), noStore, (_request, response, next) => {
    // Screens draw time by the server's clock, not the device's.
    response.setHeader('X-Evrix-Now', service.clock().toISOString())
    next()
  })
  app.all([UPLOADS_PATH, `${UPLOADS_PATH}/:id`], resumable(service))
  mountRoutes(app, service)
  app.use('/open311/v2', limit(service.config.publicReadsPerMinute), noStore, open311(service))
  app.use('/api', () => {
    throw notFound('address')
  })
  mountWeb(app, service.config.webDir)
  app.use(answerProblem)
  return app
}

function mountRoutes(app: Express, service: Service): void {
  const { publicPerMinute, publicReadsPerMinute, loginsPerMinute } = service.config
  // Reading and sending are counted apart: pages that stand open never keep somebody from reporting.
  const sendLimit = limit(publicPerMinute)
  const readLimit = limit(publicReadsPerMinute)
  const loginLimit = limit(loginsPerMinute)
  for (const route of routes) {
    const { endpoint } = route
    const open = isOpenDoor(endpoint.may) && !['/api/health', '/api/openapi.json'].includes(endpoint.path)
    const guards =
      endpoint.path === '/api/session' && endpoint.method === 'POST' ? [loginLimit] : open ? [endpoint.method === 'GET' ? readLimit : sendLimit] : []
    const method = endpoint.method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete'
    app[method](endpoint.path, ...guards, (request: Request, response: Response) => route.respond(service, request, response))
  }
}

/** Per address; answers as a problem like everything else. */
function limit(perMinute: number) {
  return rateLimit({
    windowMs: 60_000,
    limit: perMinute,
    // Whoever has a private link is counted by it, so that a whole site behind one address is not one caller.
    keyGenerator: (request) => (request.params.token ? `link:${String(request.params.token).slice(0, 43)}` : ipKeyGenerator(request.ip ?? '')),
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    handler: (_request: Request, _response: Response, next: NextFunction) =>
      next(new ProblemReply(429, 'Too many at once', 'Too much came from this address in the last minute. Nothing was saved; try again in a minute.', {}, 60)),
  })
}

/** A change may only come from our own pages: browsers say where a request comes from. */
function sameOriginOnly(service: Service) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    if (request.method === 'GET' || request.method === 'HEAD') return next()
    const site = request.get('Sec-Fetch-Site')
    const origin = request.get('Origin')
    // Behind a proxy the host we are asked by may be another than the one people see.
    const ours = origin && (origin.endsWith(`//${request.get('Host')}`) || origin === new URL(service.publicUrl()).origin)
    const foreign = (site && site !== 'same-origin' && site !== 'none') || (origin && !ours)
    next(foreign ? new ProblemReply(403, 'From another page', 'This was sent by a page that is not ours. Nothing was changed.') : undefined)
  }
}

function noStore(_request: Request, response: Response, next: NextFunction): void {
  response.setHeader('Cache-Control', 'no-store')
  next()
}

function securityHeaders(service: Service) {
  return [
    (_request: Request, response: Response, next: NextFunction) => {
      response.locals.nonce = randomBytes(16).toString('base64')
      next()
    },
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", (_request, response) => `'nonce-${(response as Response).locals.nonce as string}'`],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          manifestSrc: ["'self'"],
          workerSrc: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
        },
      },
      referrerPolicy: { policy: 'no-referrer' },
      strictTransportSecurity: service.config.publicUrl?.startsWith('https:') ? { maxAge: 180 * 86_400, includeSubDomains: false } : false,
    }),
  ]
}

/** Files of the interface that lie beside its page. */
const OWN_FILES = [
  ['rounds.sw.js', 'text/javascript'],
  ['manifest.webmanifest', 'application/manifest+json'],
  ['rounds-192.png', 'image/png'],
  ['rounds-512.png', 'image/png'],
  ['rounds-maskable.png', 'image/png'],
] as const

/** The built interface; every address that is not a file is the application's own. */
function mountWeb(app: Express, webDir: string): void {
  app.use('/assets', express.static(path.join(webDir, 'assets'), { immutable: true, maxAge: '1y', index: false }))
  // What a phone keeps to open Rounds without a network asks whether there is a newer one each time.
  for (const [name, type] of OWN_FILES)
    app.get(`/${name}`, (_request: Request, response: Response) =>
      response.sendFile(path.join(webDir, name), { headers: { 'Content-Type': type, 'Cache-Control': 'no-cache' } }),
    )
  const page = path.join(webDir, 'index.html')
  if (!existsSync(page)) return
  const html = readFileSync(page, 'utf8')
  app.get(/^\/(?!(?:api|open311)\/).*/, (request: Request, response: Response, next: NextFunction) => {
    if (path.extname(request.path) && request.path !== '/index.html') return next(notFound('file'))
    response.setHeader('Cache-Control', 'no-store')
    response.type('html').send(html.replaceAll('__NONCE__', response.locals.nonce as string))
  })
  app.use((_request: Request, _response: Response, next: NextFunction) => next(notFound('page')))
}
