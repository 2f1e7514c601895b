import Joi from 'joi'

export const id = () => Joi.number().integer().min(1)
export const version = () => Joi.number().integer().min(1)
export const line = (max = 140) => Joi.string().trim().min(1).max(max)
export const words = (max = 4000) => Joi.string().trim().max(max)
export const email = () => Joi.string().trim().email({ tlds: false }).max(190)
export const instant = () => Joi.date().iso()
export const minor = () => Joi.number().integer().min(0).max(2_000_000_000)
export const token = () => Joi.string().pattern(/^[A-Za-z0-9_-]{43}$/)
export const search = () => Joi.string().trim().allow('').max(80)
export const limit = () => Joi.number().integer().min(1).max(100)
/** A decimal above zero with at most three places, kept as text. */
export const quantity = () => Joi.string().pattern(/^(?!0+(\.0+)?$)\d{1,6}(\.\d{1,3})?$/)
