import Joi from 'joi'
import { isPlainName, readDecimal } from '#core/kit'

export const id = () => Joi.number().integer().min(1).max(2_147_483_647)
export const version = () => Joi.number().integer().min(1).max(2_147_483_647)
/** One line: line ends become blanks. */
export const line = (max = 140) =>
  Joi.string()
    .replace(/\s*[\n\u2028\u2029]\s*/g, ' ')
    .trim()
    .min(1)
    .max(max)
export const words = (max = 4000) => Joi.string().trim().max(max)
export const email = () => Joi.string().trim().email({ tlds: false }).max(190)
/** Of a person: one line, no links, since it goes out in our mail. */
export const name = (max = 120) =>
  Joi.string()
    .trim()
    .max(max)
    .custom((text: string, helpers) => (isPlainName(text) ? text : helpers.message({ custom: 'Write the name alone, on one line and without links.' })))
/**
 * A UTC instant of this and the next centuries: what a column of the database and every calendar hold. Typed as the
 * text that travels; the server gets it as a date.
 */
export const instant = () => date() as unknown as Joi.StringSchema
/** One that follows another field of the same input. */
export const instantAfter = (other: string, sentence: string) =>
  date().greater(Joi.ref(other)).messages({ 'date.greater': sentence }) as unknown as Joi.StringSchema
const date = () => Joi.date().iso().min('1970-01-01T00:00:00Z').max('2999-12-31T23:59:59Z')
/** A day of this and the next centuries, as "2026-11-23". */
export const day = () =>
  Joi.string()
    .pattern(/^(19[7-9]\d|2\d{3})-\d\d-\d\d$/)
    .custom((text: string, helpers) => (new Date(`${text}T00:00:00Z`).toJSON()?.startsWith(text) ? text : helpers.error('any.invalid')))
    .messages({ 'string.pattern.base': 'Write a day, as 2026-11-23.', 'any.invalid': 'There is no such day.' })
/** One of the words given: the list stands in core, and is never written again. */
export const oneOf = <Word extends string>(words: readonly Word[]) => Joi.string<Word>().valid(...words)
export const minor = () => Joi.number().integer().min(0).max(2_000_000_000)
export const token = () => Joi.string().pattern(/^[A-Za-z0-9_-]{43}$/)
/** What a phone calls something it recorded, before the server has a number for it. */
export const mark = () => Joi.string().pattern(/^[A-Za-z0-9_-]{16,36}$/)
export const search = () => Joi.string().trim().allow('').max(80)
export const limit = () => Joi.number().integer().min(1).max(100)
/** A decimal above zero with at most three places, kept as text with a point; read as people write it. */
export const quantity = () =>
  Joi.string()
    .max(20)
    .custom((text: string, helpers) => {
      const { value, problem } = readDecimal(text, '.', 3)
      if (problem !== undefined || value === null) return helpers.message({ custom: problem ?? 'This is needed.' })
      return /^(?!0+(\.0+)?$)\d{1,6}(\.\d{1,3})?$/.test(value) ? value : helpers.message({ custom: 'Write a quantity above zero, below a million.' })
    })
