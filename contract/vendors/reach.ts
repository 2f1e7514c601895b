import Joi from 'joi'
import { endpoint, field } from '#contract/kit'

/** What a vendor does, where, and whom to call there. */
export interface VendorReach {
  id: number
  /** Why it cannot be changed by who asks; null when it can. */
  whyNot: string | null
  trades: { id: number; name: string }[]
  /** Where they come; none is everywhere. */
  sites: { id: number; name: string }[]
  contacts: { id: number; name: string; role: string | null; email: string | null; phone: string | null }[]
}

const path = '/api/registers/vendors/:id/reach'
const may = 'registers.edit' as const
const byVendor = { id: field.id().required() }

export const readReach = endpoint<{ id: number }, VendorReach>({
  method: 'GET',
  path,
  says: 'What a vendor does, where, and whom to call there.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byVendor),
})

export interface ReachEdit {
  id: number
  tradeIds?: number[]
  siteIds?: number[]
}
export const editReach = endpoint<ReachEdit, VendorReach>({
  method: 'PATCH',
  path,
  says: 'Say which trades a vendor does and at which sites; no site is every site.',
  may,
  input: Joi.object<ReachEdit, true>({
    ...byVendor,
    tradeIds: Joi.array().items(field.id()).max(40).unique(),
    siteIds: Joi.array().items(field.id()).max(200).unique(),
  }),
})

export interface NewContact {
  id: number
  name: string
  role?: string
  email?: string
  phone?: string
}
export const saveContact = endpoint<NewContact, VendorReach>({
  method: 'POST',
  path: `${path}/contacts`,
  says: 'Whom to call at a vendor; said again by the same name, it takes the place of what was said.',
  may,
  input: Joi.object<NewContact, true>({
    ...byVendor,
    name: field.line(120).required(),
    role: field.line(80).allow(''),
    email: field.email().allow(''),
    phone: field.line(40).allow(''),
  }),
})

export const dropContact = endpoint<{ id: number; itemId: number }, VendorReach>({
  method: 'DELETE',
  path: `${path}/contacts/:itemId`,
  says: 'Nobody to call there any more.',
  may,
  input: Joi.object<{ id: number; itemId: number }, true>({ ...byVendor, itemId: field.id().required() }),
})
