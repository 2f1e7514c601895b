import type { Request, Response } from 'express'
import { XMLBuilder, XMLParser } from 'fast-xml-parser'
import { checked, expanded, freeBusy, occurrencesIn } from './occurrences'
import type { CalendarObject, CalendarStore } from './store'

/** What of WebDAV (RFC 4918) and CalDAV (RFC 4791) is needed to look at room calendars and to write into them. */

type Xml = Record<string, unknown>
const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@', removeNSPrefix: true, parseTagValue: false, parseAttributeValue: false })
const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', suppressEmptyNode: true, format: true })
const NAMESPACES = { '@xmlns:d': 'DAV:', '@xmlns:c': 'urn:ietf:params:xml:ns:caldav', '@xmlns:cs': 'http://calendarserver.org/ns/' }
const document = (root: string, content: Xml) => builder.build({ '?xml': { '@version': '1.0', '@encoding': 'utf-8' }, [root]: { ...NAMESPACES, ...content } })

export const HOME = '/calendars/'
const PRINCIPAL = '/principals/desk/'
const calendarPath = (name: string) => `${HOME}${encodeURIComponent(name)}/`
const objectPath = (name: string, file: string) => `${calendarPath(name)}${encodeURIComponent(file)}`

/** Something with an address, and what can be asked of it. Values stand in the form of the builder. */
interface Resource {
  href: string
  props: Record<string, unknown>
}

/** What an address names: the root, a person, the home of all calendars, a calendar, or a booking in one. */
type Named = { kind: 'root' } | { kind: 'principal' } | { kind: 'home' } | { kind: 'calendar'; name: string } | { kind: 'object'; name: string; file: string }
function named(address: string): Named | null {
  const parts = address.split('/').filter(Boolean).map(decodeURIComponent)
  if (!parts.length) return { kind: 'root' }
  if (parts[0] === 'principals' && parts.length <= 2) return { kind: 'principal' }
  if (parts[0] !== 'calendars' || parts.length > 3) return null
  const [, name, file] = parts
  if (!name) return { kind: 'home' }
  return file ? { kind: 'object', name, file } : { kind: 'calendar', name }
}

const everywhere = { 'd:current-user-principal': { 'd:href': PRINCIPAL } }
const collection = (more: Xml = {}) => ({ 'd:resourcetype': { 'd:collection': '', ...more } })

function calendarResource(store: CalendarStore, name: string): Resource {
  return {
    href: calendarPath(name),
    props: {
      ...everywhere,
      ...collection({ 'c:calendar': '' }),
      'd:displayname': store.titleOf(name),
      'd:owner': { 'd:href': PRINCIPAL },
      'c:supported-calendar-component-set': { 'c:comp': { '@name': 'VEVENT' } },
      'cs:getctag': store.tagOf(name),
      'd:supported-report-set': {
        'd:supported-report': ['c:calendar-query', 'c:calendar-multiget', 'c:free-busy-query'].map((report) => ({ 'd:report': { [report]: '' } })),
      },
    },
  }
}
const objectResource = (name: string, { file, etag, data }: CalendarObject, shown = data): Resource => ({
  href: objectPath(name, file),
  props: {
    ...everywhere,
    'd:resourcetype': '',
    'd:getetag': etag,
    'd:getcontenttype': 'text/calendar; charset=utf-8; component=vevent',
    'd:getcontentlength': String(Buffer.byteLength(data)),
    'c:calendar-data': shown,
  },
})

function resourcesAt(store: CalendarStore, at: Named, depth: string): Resource[] | null {
  if (at.kind === 'root') return [{ href: '/', props: { ...everywhere, ...collection() } }]
  if (at.kind === 'principal')
    return [
      {
        href: PRINCIPAL,
        props: { ...everywhere, 'd:resourcetype': { 'd:principal': '' }, 'd:displayname': 'Help desk', 'c:calendar-home-set': { 'd:href': HOME } },
      },
    ]
  if (at.kind === 'home') {
    const home = { href: HOME, props: { ...everywhere, ...collection(), 'd:displayname': 'Rooms' } }
    return [home, ...(depth === '0' ? [] : store.names().map((name) => calendarResource(store, name)))]
  }
  if (!store.has(at.name)) return null
  if (at.kind === 'calendar')
    return [calendarResource(store, at.name), ...(depth === '0' ? [] : store.objects(at.name).map((one) => objectResource(at.name, one)))]
  const found = store.find(at.name, at.file)
  return found && [objectResource(at.name, found)]
}

/** The names asked for, without their prefix; null for all there are. */
function askedProps(prop: unknown): string[] | null {
  return prop && typeof prop === 'object' ? Object.keys(prop).filter((name) => !name.startsWith('@') && name !== '#text') : null
}

function responseOf({ href, props }: Resource, asked: string[] | null): Xml {
  const bare = new Map(Object.keys(props).map((name) => [name.slice(name.indexOf(':') + 1), name]))
  // Content goes along only where it is asked for by name.
  const wanted = asked ?? [...bare.keys()].filter((name) => name !== 'calendar-data')
  const there = wanted.filter((name) => bare.has(name))
  const missing = wanted.filter((name) => !bare.has(name))
  return {
    'd:href': href,
    'd:propstat': [
      ...(there.length || !missing.length
        ? [{ 'd:prop': Object.fromEntries(there.map((name) => [bare.get(name)!, props[bare.get(name)!]])), 'd:status': 'HTTP/1.1 200 OK' }]
        : []),
      ...(missing.length ? [{ 'd:prop': Object.fromEntries(missing.map((name) => [`d:${name}`, ''])), 'd:status': 'HTTP/1.1 404 Not Found' }] : []),
    ],
  }
}

const multistatus = (response: Response, responses: Xml[]) =>
  response
    .status(207)
    .type('application/xml')
    .send(document('d:multistatus', { 'd:response': responses }))
const refuse = (response: Response, status: number, condition: string) =>
  response
    .status(status)
    .type('application/xml')
    .send(document('d:error', { [condition]: '' }))

/** "20261123T090000Z" as an instant; null for anything else. */
function instantOf(text: unknown): Date | null {
  const match = /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/.exec(String(text ?? ''))
  return match ? new Date(`${match[1]}-${match[2]}-${match[3]}T${match[4]}:${match[5]}:${match[6]}Z`) : null
}
interface Range {
  '@start'?: string
  '@end'?: string
}

function readBody(request: Request): Xml | null {
  try {
    return parser.parse(String(request.body ?? '') || '<empty/>', true) as Xml
  } catch {
    return null
  }
}

function propfind(store: CalendarStore, request: Request, response: Response, at: Named): unknown {
  const body = readBody(request)
  if (!body) return response.status(400).end()
  const found = resourcesAt(store, at, request.get('depth') ?? '1')
  if (!found) return response.status(404).end()
  const asked = askedProps((body.propfind as Xml | undefined)?.prop)
  return multistatus(
    response,
    found.map((one) => responseOf(one, asked)),
  )
}

function report(store: CalendarStore, request: Request, response: Response, at: Named, now: Date): unknown {
  const body = readBody(request)
  if (!body) return response.status(400).end()
  if ((at.kind !== 'calendar' && at.kind !== 'object') || !store.has(at.name)) return response.status(404).end()
  if ('free-busy-query' in body) {
    const range = (body['free-busy-query'] as Xml)['time-range'] as Range | undefined
    const [from, until] = [instantOf(range?.['@start']), instantOf(range?.['@end'])]
    if (!from || !until || until <= from) return refuse(response, 403, 'c:valid-filter')
    return response.type('text/calendar').send(
      freeBusy(
        store.objects(at.name).map(({ data }) => data),
        from,
        until,
        now,
      ),
    )
  }
  const query = (body['calendar-query'] ?? body['calendar-multiget']) as Xml | undefined
  if (!query) return refuse(response, 403, 'd:supported-report')
  const asked = askedProps(query.prop)
  const expand = ((query.prop as Xml | undefined)?.['calendar-data'] as Xml | undefined)?.expand as Range | undefined
  if ('calendar-multiget' in body) {
    const hrefs = [query.href ?? []].flat().map(String)
    return multistatus(
      response,
      hrefs.map((href) => {
        const one = named(new URL(href, 'http://here').pathname)
        const found = one?.kind === 'object' ? store.find(one.name, one.file) : null
        return found && one?.kind === 'object' ? responseOf(shownAs(one.name, found, expand), asked) : { 'd:href': href, 'd:status': 'HTTP/1.1 404 Not Found' }
      }),
    )
  }
  const outer = (query.filter as Xml | undefined)?.['comp-filter'] as Xml | undefined
  const inner = outer?.['comp-filter'] as Xml | undefined
  if (outer?.['@name'] !== 'VCALENDAR' || [inner ?? []].flat().length > 1) return refuse(response, 403, 'c:valid-filter')
  if (inner && ('prop-filter' in inner || 'is-not-defined' in inner)) return refuse(response, 403, 'c:supported-filter')
  if (inner && inner['@name'] !== 'VEVENT') return multistatus(response, [])
  const range = inner?.['time-range'] as Range | undefined
  const [from, until] = [instantOf(range?.['@start']), instantOf(range?.['@end'])]
  const fitting = store.objects(at.name).filter(({ data }) => !range || occurrencesIn(data, from, until).length)
  return multistatus(
    response,
    fitting.map((one) => responseOf(shownAs(at.name, one, expand), asked)),
  )
}

/** A booking as it is kept, or each time it takes place where that is asked for. */
function shownAs(name: string, one: CalendarObject, expand: Range | undefined): Resource {
  const [from, until] = [instantOf(expand?.['@start']), instantOf(expand?.['@end'])]
  return objectResource(name, one, (from && until && expanded(one.data, from, until)) || one.data)
}

function put(store: CalendarStore, request: Request, response: Response, at: Named): unknown {
  if (at.kind !== 'object') return response.status(405).end()
  if (!store.has(at.name)) return response.status(409).end()
  if (!/^text\/calendar\b/i.test(request.get('content-type') ?? '')) return refuse(response, 403, 'c:supported-calendar-data')
  const before = store.find(at.name, at.file)
  if (isStale(request, before)) return response.status(412).end()
  const data = String(request.body ?? '')
  const said = checked(data)
  if ('problem' in said) return refuse(response, 403, `c:${said.problem}`)
  const taken = store
    .objects(at.name)
    .find((one) => one.file !== at.file && occurrencesIn(one.data, null, new Date(8.64e15)).some(({ uid }) => uid === said.uid))
  if (taken)
    return response
      .status(403)
      .type('application/xml')
      .send(document('d:error', { 'c:no-uid-conflict': { 'd:href': objectPath(at.name, taken.file) } }))
  const etag = store.put(at.name, at.file, data)
  if (!etag) return response.status(403).end()
  return response
    .status(before ? 204 : 201)
    .setHeader('ETag', etag)
    .end()
}

/** Whether what the caller knows is no longer so (RFC 9110, 13.1). */
function isStale(request: Request, before: CalendarObject | null): boolean {
  const [match, none] = [request.get('if-match'), request.get('if-none-match')]
  if (match && (!before || (match !== '*' && !match.split(/\s*,\s*/).includes(before.etag)))) return true
  return !!none && !!before && (none === '*' || none.split(/\s*,\s*/).includes(before.etag))
}

function remove(store: CalendarStore, request: Request, response: Response, at: Named): unknown {
  if (at.kind !== 'object') return response.status(403).end()
  const before = store.find(at.name, at.file)
  if (!before) return response.status(404).end()
  if (isStale(request, before)) return response.status(412).end()
  store.remove(at.name, at.file)
  return response.status(204).end()
}

function makeCalendar(store: CalendarStore, request: Request, response: Response, at: Named): unknown {
  if (at.kind !== 'calendar') return response.status(403).end()
  if (store.has(at.name)) return refuse(response, 405, 'd:resource-must-be-null')
  const body = readBody(request)
  const set = ((body?.mkcalendar as Xml | undefined)?.set as Xml | undefined)?.prop as Xml | undefined
  return response.status(store.make(at.name, String(set?.displayname ?? at.name)) ? 201 : 403).end()
}

const METHODS = 'OPTIONS, GET, HEAD, PUT, DELETE, PROPFIND, REPORT, MKCALENDAR'

/** Answers one request of a calendar program; the body is read as text already. */
export function answerDav(store: CalendarStore, request: Request, response: Response, now: Date): unknown {
  const at = named(request.path)
  response.setHeader('DAV', '1, 3, calendar-access')
  if (request.method === 'OPTIONS') return response.setHeader('Allow', METHODS).status(200).end()
  if (!at) return response.status(404).end()
  switch (request.method) {
    case 'PROPFIND':
      return propfind(store, request, response, at)
    case 'REPORT':
      return report(store, request, response, at, now)
    case 'PUT':
      return put(store, request, response, at)
    case 'DELETE':
      return remove(store, request, response, at)
    case 'MKCALENDAR':
      return makeCalendar(store, request, response, at)
    case 'GET':
    case 'HEAD': {
      const found = at.kind === 'object' ? store.find(at.name, at.file) : null
      return found ? response.setHeader('ETag', found.etag).type('text/calendar').send(found.data) : response.status(404).end()
    }
    default:
      return response.setHeader('Allow', METHODS).status(405).end()
  }
}
