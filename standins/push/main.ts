import type { AddressInfo } from 'node:net'
import { buffer } from 'node:stream/consumers'
import express from 'express'

/** A push service (RFC 8030), on loopback alone: it keeps what is sent to a browser until that asks, and cannot read it. */
interface Kept {
  ttl: number
  encoding: string
  authorization: string
  body: string
}
const browsers = new Map<string, Kept[]>()
const gone = new Set<string>()

const app = express()
app.disable('x-powered-by')
app.post('/push/:id', async (request, response) => {
  const { id } = request.params
  const body = await buffer(request)
  const ttl = request.get('TTL')
  if (gone.has(id)) return void response.sendStatus(410)
  if (ttl === undefined || !/^\d+$/.test(ttl)) return void response.status(400).send('TTL is missing (RFC 8030, 5.2).')
  if (!/^vapid /i.test(request.get('Authorization') ?? '')) return void response.sendStatus(401)
  // RFC 8030, 7.2: at least 4,096 bytes are taken.
  if (body.length > 4_096) return void response.sendStatus(413)
  const kept: Kept = {
    ttl: Number(ttl),
    encoding: request.get('Content-Encoding') ?? '',
    authorization: request.get('Authorization')!,
    body: body.toString('base64url'),
  }
  browsers.set(id, [...(browsers.get(id) ?? []), kept])
  response.status(201).setHeader('Location', `/message/${id}-${browsers.get(id)!.length}`)
  response.end()
})
/** What a browser would be handed. */
app.get('/push/:id', (request, response) => {
  response.json(browsers.get(request.params.id) ?? [])
})
/** The browser wants no more of it. */
app.delete('/push/:id', (request, response) => {
  gone.add(request.params.id)
  browsers.delete(request.params.id)
  response.sendStatus(204)
})

const server = app.listen(Number(process.env.EVRIX_PUSH_PORT ?? 0), '127.0.0.1', () => {
  process.stdout.write(`listening http://127.0.0.1:${(server.address() as AddressInfo).port}\n`)
})
// Ended by hand, with its terminal, or with whoever started it.
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP', 'disconnect'] as const)
  process.once(signal as 'SIGTERM', () => {
    server.close(() => process.exit(0))
    server.closeAllConnections()
  })
