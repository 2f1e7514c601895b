import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { ROLES } from '#core/people'
import type { Grant } from '#core/people'

/** Somebody who signs in, as an administrator sees them. */
export interface AccountRow {
  id: number
  version: number
  name: string
  email: string
  roles: Grant[]
  approvalLimitMinor: number | null
  disabled: boolean
  teamId: number | null
  /** Whether limit and access are this administrator's to change: not where it works at sites they do not administer. */
  whole: boolean
}

export interface AccountsSheet {
  accounts: AccountRow[]
  /** The sites this administrator gives roles at; roles for every site only when `everywhere`. */
  sites: { id: number; code: string; name: string }[]
  everywhere: boolean
  teams: { id: number; name: string }[]
}

export const readAccounts = endpoint<object, AccountsSheet>({
  method: 'GET',
  path: '/api/setup/accounts',
  says: 'People who sign in at your sites, with roles, limits and teams.',
  may: 'setup.edit',
})

export interface AccountEdit {
  id: number
  version: number
  roles: Grant[]
  approvalLimitMinor: number | null
  disabled: boolean
  teamId?: number | null
}

export const editAccount = endpoint<AccountEdit, AccountsSheet>({
  method: 'PATCH',
  path: '/api/setup/accounts/:id',
  says: 'Change roles, each at a site or everywhere, approval limit, or whether somebody may sign in.',
  may: 'setup.edit',
  input: Joi.object<AccountEdit, true>({
    id: field.id().required(),
    version: field.version().required(),
    roles: Joi.array()
      .items(Joi.object({ role: field.oneOf(ROLES).required(), siteId: field.id().allow(null).required() }))
      .unique()
      .max(100)
      .required(),
    approvalLimitMinor: field.minor().allow(null).required(),
    disabled: Joi.boolean().required(),
    /** Whom views shared with a team reach. */
    teamId: field.id().allow(null),
  }),
})
