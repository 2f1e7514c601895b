import express, { Router } from 'express'
import type { NextFunction, Request, Response } from 'express'
import { cleanDeep, Refusal } from '#core/kit'
import { spanOf } from '#core/requests'
import { logger, ProblemReply, unavailability } from '#server/kit'
import type { Service } from '#server/kit'
import { jurisdictionOf, keyOf } from './asker'
import { createFromProgram } from './createFromProgram'
import { sendErrors, sendRows, sendXml, StandardError } from './format'
import type { Format } from './format'
import { readRequests } from './readRequests'
import { listServices, serviceDefinition } from './services'

export * from './keys'

/**
 * Open311 GeoReport v2: the published open standard by which other programs report and follow requests.
 * Mounted at /open311/v2; its own forms, names and errors, the same requests behind it.
 */
export function open311(service: Service): Router {
  const { db, writer, clock, publisher } = service
  const router = Router()
  // The format says how every answer looks, also one that says no: it is looked at before anything else.
  router.use((request, _response, next) => {
    const asked = /\.([A-Za-z0-9]+)$/.exec(request.path)?.[1]
    if (asked && asked !== 'json' && asked !== 'xml') throw new StandardError(404, [`The format ${asked} is neither json nor xml.`])
    if (request.method === 'POST' && !request.is('application/x-www-form-urlencoded'))
      throw new StandardError(400, ['A POST carries its arguments as application/x-www-form-urlencoded; nothing else is read.'])
    next()
  })
  router.use(express.urlencoded({ extended: true, limit: '256kb', parameterLimit: 200 }))

  router.get('/services.:format', async (request, response) => {
    await jurisdictionOf(db, one(request.query.jurisdiction_id), await keyOf(db, one(request.query.api_key), clock()))
    sendRows(response, formatOf(request), 'services', 'service', await listServices(db))
  })

  router.get('/services/:code.:format', async (request, response) => {
    await jurisdictionOf(db, one(request.query.jurisdiction_id), await keyOf(db, one(request.query.api_key), clock()))
    const definition = await serviceDefinition(db, request.params.code)
    if (formatOf(request) === 'json') return void response.json(definition)
    const attributes = definition.attributes.map(({ values, ...attribute }) => ({ ...attribute, ...(values ? { values: { value: values } } : {}) }))
    sendXml(response, { service_definition: { service_code: definition.service_code, attributes: attributes.length ? { attribute: attributes } : '' } })
  })

  router.post('/requests.:format', async (request, response) => {
    const now = clock()
    const body = cleanDeep({ ...(request.body as object) }) as Record<string, unknown>
    const from = { ...request.query, ...body }
    const key = await keyOf(db, one(from.api_key), now)
    if (!key) throw new StandardError(403, ['api_key is needed to report. An administrator makes one in Setup.'])
    const site = await jurisdictionOf(db, one(from.jurisdiction_id), key)
    if (!one(from.service_code)) throw new StandardError(400, ['service_code was not provided.'])
    const made = await writer.transaction((tx) => createFromProgram(tx, service, site, key, body, now))
    publisher.nudge()
    sendRows(response, formatOf(request), 'service_requests', 'request', [made], 201)
  })

  router.get('/requests.:format', async (request, response) => {
    const { query } = request
    const now = clock()
    const key = await keyOf(db, one(query.api_key), now)
    const site = await jurisdictionOf(db, one(query.jurisdiction_id), key)
    const ids = list(query.service_request_id)
    const status = list(query.status)
    const strange = status?.find((word) => word !== 'open' && word !== 'closed')
    if (strange) throw new StandardError(400, [`status ${strange} is neither open nor closed.`])
    // A request named by its number is found whatever else is asked.
    const filters = ids
      ? { ids }
      : {
          serviceCodes: list(query.service_code),
          status: status as ('open' | 'closed')[] | undefined,
          ...spanOf(one(query.start_date), one(query.end_date), now),
        }
    sendRows(response, formatOf(request), 'service_requests', 'request', await readRequests(db, { site, key, now, ...filters }))
  })

  router.get('/requests/:id.:format', async (request, response) => {
    const now = clock()
    const key = await keyOf(db, one(request.query.api_key), now)
    const site = await jurisdictionOf(db, one(request.query.jurisdiction_id), key)
    const rows = await readRequests(db, { site, key, now, ids: [request.params.id] })
    if (!rows.length) throw new StandardError(404, [`service_request_id ${request.params.id} was not found.`])
    sendRows(response, formatOf(request), 'service_requests', 'request', rows)
  })

  router.use((request: Request) => {
    throw new StandardError(404, [`There is no ${request.method} ${request.baseUrl}${request.path} in GeoReport v2, or its format is neither .json nor .xml.`])
  })
  router.use(answerError)
  return router
}

function formatOf(request: Request): Format {
  const { format } = request.params
  if (format === 'json' || format === 'xml') return format
  throw new StandardError(404, [`The format ${String(format)} is neither json nor xml.`])
}

const one = (value: unknown): string | undefined => (typeof value === 'string' && value !== '' ? value : undefined)
function list(value: unknown): string[] | undefined {
  const found = one(value)
    ?.split(',')
    .map((part) => part.trim())
    .filter(Boolean)
  return found?.length ? found.slice(0, 200) : undefined
}

/** Every failure in the standard's own error format, in the format that was asked for. */
function answerError(error: unknown, request: Request, response: Response, _next: NextFunction): void {
  const format: Format = request.path.endsWith('.xml') ? 'xml' : 'json'
  if (error instanceof StandardError) return sendErrors(response, format, error.status, error.sentences)
  if (error instanceof Refusal)
    return sendErrors(
      response,
      format,
      400,
      error.reasons.map((reason) => reason.sentence),
    )
  if (unavailability(error)) {
    response.setHeader('Retry-After', '5')
    return sendErrors(response, format, 503, ['The database cannot be reached at the moment. Nothing was saved; try again.'])
  }
  if (error instanceof ProblemReply) return sendErrors(response, format, error.status, [error.detail])
  const status = (error as { status?: number }).status
  if (status && status < 500)
    return sendErrors(response, format, status, ['What was sent cannot be read. Send application/x-www-form-urlencoded of at most 256 kB.'])
  logger.error({ error }, 'GeoReport failed')
  sendErrors(response, format, 500, ['The server failed while doing this. Nothing was saved; try again.'])
}
