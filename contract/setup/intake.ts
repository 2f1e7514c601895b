import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { ASKING, COUNTER_FIELDS, OCCASIONS, QUESTION_KINDS } from '#core/requests'
import type { CounterFields, Occasion, Question, Wording } from '#core/requests'

export interface SiteIntake {
  id: number
  code: string
  name: string
  deskEmail: string
  fields: CounterFields
}

export interface CategoryRow {
  id: number
  parentId: number | null
  code: string
  name: string
  hint: string | null
  tradeId: number | null
  position: number
  retired: boolean
  /** How often its questions were edited; answers stay with the form they were given to. */
  round: number
  questions: Question[]
}

export interface IntakeSetup {
  /** Categories are for every site: whether this administrator may change them. */
  everywhere: boolean
  sites: SiteIntake[]
  categories: CategoryRow[]
  wordings: ({ siteId: number; occasion: Occasion; own: boolean } & Wording)[]
  apiKeys: { id: number; siteId: number; name: string; createdAt: Instant; lastUsedAt: Instant | null; revoked: boolean }[]
}

export const readIntakeSetup = endpoint<object, IntakeSetup>({
  method: 'GET',
  path: '/api/setup/intake',
  says: 'What the Counter asks, categories with their questions, the words of mails, and API keys.',
  may: 'setup.edit',
})

export const editSiteIntake = endpoint<{ id: number; fields: CounterFields }, IntakeSetup>({
  method: 'PATCH',
  path: '/api/setup/sites/:id/intake',
  says: 'Set which fields a site’s Counter asks for.',
  may: 'setup.edit',
  input: Joi.object<{ id: number; fields: CounterFields }, true>({
    id: field.id().required(),
    fields: Joi.object(Object.fromEntries(COUNTER_FIELDS.map((name) => [name, field.oneOf(ASKING).required()]))).required(),
  }),
})

export const copySiteIntake = endpoint<{ fromId: number; toIds: number[] }, IntakeSetup>({
  method: 'POST',
  path: '/api/setup/intake/copy',
  says: 'Give other sites the same Counter fields as one.',
  may: 'setup.edit',
  input: Joi.object<{ fromId: number; toIds: number[] }, true>({
    fromId: field.id().required(),
    toIds: Joi.array().items(field.id()).unique().min(1).max(100).required(),
  }),
})

const question = Joi.object({
  code: Joi.string().max(32).required(),
  label: Joi.string().trim().allow('').max(160).required(),
  kind: field.oneOf(QUESTION_KINDS).required(),
  required: Joi.boolean().required(),
  unit: Joi.string().trim().allow('').max(16),
  least: Joi.number().allow(null),
  most: Joi.number().allow(null),
  options: Joi.array().items(Joi.string().trim().max(80)).max(40),
  when: Joi.object({ code: Joi.string().max(32).required(), is: Joi.string().max(80).required() }).allow(null),
})

export interface CategoryEntry {
  id?: number | null
  parentId: number | null
  code: string
  name: string
  hint: string
  tradeId: number | null
  position: number
  retired: boolean
  questions: Question[]
}

export const saveCategory = endpoint<CategoryEntry, IntakeSetup>({
  method: 'POST',
  path: '/api/setup/categories',
  says: 'Write or change a category. Changed questions become a new form; answers given keep theirs.',
  may: 'setup.edit',
  input: Joi.object<CategoryEntry, true>({
    id: field.id().allow(null),
    parentId: field.id().allow(null).required(),
    code: Joi.string()
      .pattern(/^[a-z][a-z0-9-]{0,31}$/)
      .required()
      .messages({ 'string.pattern.base': 'Write small letters, digits and -, beginning with a letter.' }),
    name: field.line(80).required(),
    hint: field.words(160).allow('').required(),
    tradeId: field.id().allow(null).required(),
    position: Joi.number().integer().min(0).max(10_000).required(),
    retired: Joi.boolean().required(),
    questions: Joi.array().items(question).max(30).required(),
  }),
})

const wording = {
  siteId: field.id().required(),
  occasion: field.oneOf(OCCASIONS).required(),
  subject: field.line(200).required(),
  text: field.words(8000).min(1).required(),
}

export const saveWording = endpoint<{ siteId: number; occasion: Occasion } & Wording, IntakeSetup>({
  method: 'POST',
  path: '/api/setup/wordings',
  says: 'Set the words of a mail for a site and an occasion.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; occasion: Occasion } & Wording, true>(wording),
})

export const dropWording = endpoint<{ siteId: number; occasion: Occasion }, IntakeSetup>({
  method: 'DELETE',
  path: '/api/setup/wordings/:siteId/:occasion',
  says: 'Go back to the usual words.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; occasion: Occasion }, true>({ siteId: wording.siteId, occasion: wording.occasion }),
})

export const previewWording = endpoint<{ siteId: number; occasion: Occasion } & Wording, { subject: string; text: string; html: string; of: string }>({
  method: 'POST',
  path: '/api/setup/wordings/preview',
  says: 'The words filled in with the newest request of the site.',
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; occasion: Occasion } & Wording, true>(wording),
})

export const makeApiKey = endpoint<{ siteId: number; name: string }, { key: string; setup: IntakeSetup }>({
  method: 'POST',
  path: '/api/setup/api-keys',
  says: 'Make a key for a program that sends requests. The key is shown this once.',
  secret: true,
  may: 'setup.edit',
  input: Joi.object<{ siteId: number; name: string }, true>({ siteId: field.id().required(), name: field.line(80).required() }),
})

export const revokeApiKey = endpoint<{ id: number }, IntakeSetup>({
  method: 'DELETE',
  path: '/api/setup/api-keys/:id',
  says: 'Take a key back; programs that use it are refused from now on.',
  may: 'setup.edit',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
