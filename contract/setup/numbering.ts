import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { isPrefix, MOST_DIGITS, MOST_PREFIX, SERIES } from '#core/kit'
import type { Series } from '#core/kit'

export interface NumberingSheet {
  numberings: { siteId: number; siteCode: string; series: Series; prefix: string; next: number; digits: number }[]
}

export const readNumbering = endpoint<object, NumberingSheet>({
  method: 'GET',
  path: '/api/setup/numbering',
  says: 'The next number of every series at your sites.',
  may: 'setup.edit',
})

/** How numbers of a series are written from now on: what is not said stays. */
export interface NumberingEdit {
  siteId: number
  series: Series
  prefix?: string
  next?: number
  digits?: number
}

export const editNumbering = endpoint<NumberingEdit, NumberingSheet>({
  method: 'PATCH',
  path: '/api/setup/numbering/:siteId/:series',
  says: 'Set what the numbers of a series begin with, how many digits they have, and the next one; never one already used.',
  may: 'setup.edit',
  input: Joi.object<NumberingEdit, true>({
    siteId: field.id().required(),
    series: field.oneOf(SERIES).required(),
    prefix: Joi.string()
      .uppercase()
      .trim()
      .custom((text: string, helpers) => (isPrefix(text) ? text : helpers.message({ custom: `Write one to ${MOST_PREFIX} letters.` }))),
    next: Joi.number().integer().min(1).max(99_999_999),
    digits: Joi.number().integer().min(1).max(MOST_DIGITS),
  }).or('prefix', 'next', 'digits'),
})
