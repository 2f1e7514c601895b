import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { MOST_LINES, MOST_SKILLS, MOST_STEPS, PERMITS, STEP_KINDS } from '#core/methods'
import type { HazardLine, LabourLine, MethodContent, MethodStep, PartLine, StepFields, ToolLine } from '#core/methods'

/** What a method says in one of its versions. */
export interface MethodEdition {
  /** Counted from 1; 0 while nothing was written yet. */
  edition: number
  content: MethodContent
  /** What the ids in it are called. */
  names: PlanNames
  at: Instant | null
  by: string | null
  note: string | null
  mayEdit: boolean
  /** The newest first. */
  editions: { edition: number; at: Instant; by: string; note: string | null }[]
}

/** What the ids of a plan are called. */
export interface PlanNames {
  trades: Record<string, string>
  parts: Record<string, { code: string; name: string; unit: string }>
  equipment: Record<string, string>
}

const limit = () => Joi.number().min(-999_999_999).max(999_999_999).allow(null)
export const stepFields = {
  text: field.line(300),
  kind: field.oneOf(STEP_KINDS),
  unit: field.line(16).allow(null, ''),
  least: limit(),
  most: limit(),
  choices: Joi.array().items(field.line(60)).max(12),
  first: Joi.boolean(),
} satisfies Record<keyof StepFields, Joi.Schema>

const needed = <Fields extends Record<string, Joi.Schema>>(fields: Fields) =>
  Object.fromEntries(Object.entries(fields).map(([name, schema]) => [name, schema.required()])) as Fields

export const labourLine = Joi.object<LabourLine>({
  tradeId: field.id().required().messages({ 'number.min': 'Choose a trade.' }),
  people: Joi.number().integer().min(1).max(20).required(),
  minutes: Joi.number().integer().min(1).max(60_000).required(),
  skills: Joi.array().items(field.line(80)).max(MOST_SKILLS),
})
export const partLine = Joi.object<PartLine>({
  partId: field.id().required().messages({ 'number.min': 'Choose a part.' }),
  quantity: field.quantity().required(),
})
export const toolLine = Joi.object<ToolLine>({ text: field.line(120).required(), equipmentId: field.id().allow(null).required() })
export const hazardLine = Joi.object<HazardLine>({
  hazard: field.line(160).required(),
  control: field.line(300).required(),
  permit: field.oneOf(PERMITS).allow(null).required(),
})

export const readMethodContent = endpoint<{ id: number; edition?: number }, MethodEdition>({
  method: 'GET',
  path: '/api/methods/:id/content',
  says: 'What a method says is done: steps, labour, parts, tools and hazards, in its newest version or an earlier one.',
  may: 'desk.read',
  input: Joi.object<{ id: number; edition?: number }, true>({ id: field.id().required(), edition: field.version() }),
})

interface WriteMethod {
  id: number
  /** The version it was made from: 0 for the first. */
  from: number
  content: MethodContent
  note?: string
}

export const writeMethod = endpoint<WriteMethod, MethodEdition>({
  method: 'POST',
  path: '/api/methods/:id/content',
  says: 'Write a method anew: a further version. Orders keep the version they were given.',
  may: 'registers.edit',
  input: Joi.object<WriteMethod, true>({
    id: field.id().required(),
    from: Joi.number().integer().min(0).max(10_000).required(),
    content: Joi.object({
      steps: Joi.array()
        .max(MOST_STEPS)
        .items(Joi.object<MethodStep>({ ...needed(stepFields), after: Joi.number().integer().min(0).allow(null).required() }))
        .required(),
      labour: Joi.array().max(MOST_LINES).items(labourLine).required(),
      parts: Joi.array().max(MOST_LINES).items(partLine).required(),
      tools: Joi.array().max(MOST_LINES).items(toolLine).required(),
      hazards: Joi.array().max(MOST_LINES).items(hazardLine).required(),
    }).required() as unknown as Joi.ObjectSchema<MethodContent>,
    note: field.line(200).allow(''),
  }),
})
