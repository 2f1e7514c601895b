import Joi from 'joi'
import { endpoint, field } from '#contract/kit'

/** Somebody whom rules or orders of a site wait for, and who approves nothing there any more. */
export interface Unable {
  siteId: number
  siteCode: string
  accountId: number
  name: string
  /** How many rules of the site ask them, and for how many payers they consent. */
  rules: number
  consents: number
  orders: { id: number; number: string }[]
  /** Who could decide instead. */
  able: { id: number; name: string }[]
}

/** Those who are asked to agree, and cannot. */
export interface UnableSheet {
  unable: Unable[]
}

export const readUnable = endpoint<object, UnableSheet>({
  method: 'GET',
  path: '/api/setup/unable',
  says: 'Whom rules, consents and open questions of your sites wait for in vain, and who could decide instead.',
  may: 'setup.edit',
})

export const handOver = endpoint<{ siteId: number; fromId: number; toId: number }, UnableSheet>({
  method: 'POST',
  path: '/api/setup/hand-over',
  says: 'Give what waits for somebody who cannot decide any more to somebody who can: rules, consents and open questions of a site.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; fromId: number; toId: number }, true>({
    siteId: field.id().required(),
    fromId: field.id().required(),
    toId: field.id().required(),
  }),
})
