import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { SERIES } from '#core/kit'
import type { Series } from '#core/kit'

export interface NumberingSheet {
  numberings: { siteId: number; siteCode: string; series: Series; prefix: string; next: number }[]
}

export const readNumbering = endpoint<object, NumberingSheet>({
  method: 'GET',
  path: '/api/setup/numbering',
  says: 'The next number of every series at your sites.',
  may: 'setup.edit',
})

export const editNumbering = endpoint<{ siteId: number; series: Series; next: number }, NumberingSheet>({
  method: 'PATCH',
  path: '/api/setup/numbering/:siteId/:series',
  says: 'Set the next number; never one already used.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; series: Series; next: number }, true>({
    siteId: field.id().required(),
    series: field.oneOf(SERIES).required(),
    next: Joi.number().integer().min(1).max(99_999_999).required(),
  }),
})
