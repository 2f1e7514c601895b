import Joi from 'joi'
import { endpoint, field } from '#contract/kit'

export interface NumberingSheet {
  numberings: { siteId: number; siteCode: string; series: 'request' | 'order'; prefix: string; next: number }[]
}

export const readNumbering = endpoint<object, NumberingSheet>({
  method: 'GET',
  path: '/api/setup/numbering',
  says: 'The next number of every series at your sites.',
  may: 'setup.edit',
})

export const editNumbering = endpoint<{ siteId: number; series: 'request' | 'order'; next: number }, NumberingSheet>({
  method: 'PATCH',
  path: '/api/setup/numbering/:siteId/:series',
  says: 'Set the next number; never one already used.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; series: 'request' | 'order'; next: number }, true>({
    siteId: field.id().required(),
    series: field.oneOf(['request', 'order']).required(),
    next: Joi.number().integer().min(1).max(99_999_999).required(),
  }),
})
