import Joi from 'joi'
import { Refusal } from '#core/kit'
import { answersFromAttributes, summaryOfMail } from '#core/requests'
import { reasonsOf, recordEvent } from '#server/kit'
import type { Service, Tx } from '#server/kit'
import { findSpots } from '#server/places'
import { createRequest } from '#server/requests'
import type { SiteRecord } from '#server/requests'
import type { KeyRecord } from './asker'
import { StandardError } from './format'
import { serviceByCode } from './services'

interface Sent {
  service_code: string
  description: string
  lat?: number
  long?: number
  address_string?: string
  address_id?: string
  email?: string
  first_name?: string
  last_name?: string
  phone?: string
  device_id?: string
  account_id?: string
  media_url?: string
  attribute: Record<string, string | string[]>
}

/** The arguments of the standard's POST, with its limits and ours. */
const sent = Joi.object<Sent>({
  service_code: Joi.string().required(),
  description: Joi.string().trim().max(4000).required(),
  lat: Joi.number().min(-90).max(90),
  long: Joi.number().min(-180).max(180),
  address_string: Joi.string().trim().max(200).allow(''),
  address_id: Joi.string().trim().max(40).allow(''),
  email: Joi.string().email({ tlds: false }).max(190).allow(''),
  first_name: Joi.string().trim().max(60).allow(''),
  last_name: Joi.string().trim().max(59).allow(''),
  phone: Joi.string().trim().max(40).allow(''),
  device_id: Joi.string().max(200).allow(''),
  account_id: Joi.string().max(80).allow(''),
  media_url: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .max(500)
    .allow(''),
  attribute: Joi.object()
    .pattern(Joi.string().max(64), [Joi.string().max(2000).allow(''), Joi.array().items(Joi.string().max(2000))])
    .default({}),
})
  .and('lat', 'long')
  .options({ stripUnknown: true, abortEarly: false, convert: true })

/** A request from a program, in the same queue as any other. */
export async function createFromProgram(tx: Tx, service: Service, site: SiteRecord, key: KeyRecord, body: unknown, now: Date) {
  const read = sent.validate(body)
  if (read.error) throw new StandardError(400, sentencesOf(reasonsOf(read.error)))
  const input = read.value
  if (input.lat === undefined && !input.address_id && !input.address_string)
    throw new StandardError(400, ['Say where: lat and long, address_string or address_id (the code of a place or the tag of an asset).'])
  const category = await serviceByCode(tx, input.service_code)
  const spot = await spotOf(tx, site.id, input)
  const name = [input.first_name, input.last_name].filter(Boolean).join(' ')
  const unknownAddress = !spot && input.address_string ? `\nAddress given: ${input.address_string}` : ''
  try {
    const { id, number } = await createRequest(
      tx,
      service,
      site,
      {
        channel: 'system',
        placeId: spot?.placeId ?? null,
        assetId: spot?.assetId ?? null,
        summary: summaryOfMail(undefined, input.description),
        description: `${input.description}${unknownAddress}`,
        categoryId: category.id,
        answers: answersFromAttributes(category.questions, input.attribute, site.zone),
        name,
        email: input.email || undefined,
        phone: input.phone || undefined,
        sentBy: {
          lat: input.lat,
          long: input.long,
          address: input.address_string || undefined,
          mediaUrl: input.media_url || undefined,
          accountId: input.account_id || undefined,
        },
        apiKeyId: key.id,
      },
      now,
    )
    await recordEvent(tx, { accountId: null, name: name || key.name }, now, {
      kind: 'request.report',
      siteId: site.id,
      requestId: id,
      to: 'new',
      details: { channel: 'system', key: key.name },
    })
    return { service_request_id: number, service_notice: 'The help desk looks at it.', account_id: input.account_id ?? '' }
  } catch (error) {
    if (error instanceof Refusal) throw new StandardError(400, sentencesOf(error.reasons))
    throw error
  }
}

/** The one place or asset meant: by its code, otherwise the only one that fits the words. */
async function spotOf(tx: Tx, siteId: number, { address_id: code, address_string: words }: Sent) {
  if (code) {
    const spot = (await findSpots(tx, siteId, code)).find((one) => one.code.toLowerCase() === code.toLowerCase())
    if (!spot) throw new StandardError(400, [`address_id ${code} is no place or asset here.`])
    return spot
  }
  const found = words ? await findSpots(tx, siteId, words) : []
  const same = found.filter((one) => [one.code, one.name].some((name) => name.toLowerCase() === words!.toLowerCase()))
  return same.length === 1 ? same[0]! : found.length === 1 ? found[0]! : null
}

const sentencesOf = (reasons: { field?: string; sentence: string }[]) =>
  reasons.map(({ field, sentence }) => {
    const attribute = /^answers\.(.+)$/.exec(field ?? '')
    return `${attribute ? `attribute[${attribute[1]}]` : field || 'lat, long'}: ${sentence}`
  })
