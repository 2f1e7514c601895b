import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { MOST_LINES } from '#core/methods'
import type { Estimate, HazardLine, LabourLine, LikeCosts, PlanChange, MethodContent, PartLine, StepFields, StepState, ToolLine } from '#core/methods'
import { hazardLine, labourLine, partLine, stepFields, toolLine } from './content'
import type { PlanNames } from './content'

/** A method an order was given, in the version of that moment. */
export interface AppliedMethod {
  id: number
  methodId: number
  code: string
  name: string
  edition: number
  /** Written anew since. */
  newer: boolean
  at: Instant
  by: string
}

export interface OrderStep extends StepFields {
  id: number
  version: number
  position: number
  /** The method it came with. */
  appliedId: number | null
  afterId: number | null
  assignee: { id: number; name: string } | null
  state: StepState
  value: string | null
  /** The value found lies outside its limits. */
  outside: boolean
  note: string | null
  photoId: number | null
  doneBy: string | null
  doneAt: Instant | null
}

/** What an order needs, line by line. */
export interface OrderPlan {
  orderId: number
  version: number
  methods: AppliedMethod[]
  steps: OrderStep[]
  labour: LabourLine[]
  parts: PartLine[]
  tools: ToolLine[]
  hazards: HazardLine[]
  names: PlanNames
  mayEdit: boolean
  /** Why it is not changed any more; null while it can be. */
  whyNot: string | null
}

const ofOrder = { orderId: field.id().required() }
const byPlan = { ...ofOrder, version: Joi.number().integer().min(0).required() }

export const readOrderPlan = endpoint<{ orderId: number }, OrderPlan>({
  method: 'GET',
  path: '/api/orders/:orderId/plan',
  says: 'What is planned of an order: the methods it was given, its steps, labour, parts, tools and hazards.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>(ofOrder),
})

/** A method that fits, and why. */
export interface OfferedMethod {
  id: number
  code: string
  name: string
  edition: number
  /** Sentences, the weightiest first. */
  reasons: string[]
  content: MethodContent
}

export const offerMethods = endpoint<{ orderId: number; q?: string }, { rows: OfferedMethod[]; names: PlanNames }>({
  method: 'GET',
  path: '/api/orders/:orderId/methods',
  says: 'Methods that fit an order, each with the reason; with words, those that are called so.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number; q?: string }, true>({ ...ofOrder, q: field.search() }),
})

interface ApplyMethods {
  orderId: number
  version: number
  methodIds: number[]
}
export const applyMethods = endpoint<ApplyMethods, OrderPlan>({
  method: 'POST',
  path: '/api/orders/:orderId/methods',
  says: 'Give an order methods: their steps, labour, parts, tools and hazards are added, and can be changed then.',
  may: 'orders.edit',
  input: Joi.object<ApplyMethods, true>({ ...byPlan, methodIds: Joi.array().items(field.id()).unique().min(1).max(10).required() }),
})

interface TakeOff {
  orderId: number
  version: number
  appliedId: number
}
export const takeOffMethod = endpoint<TakeOff, OrderPlan>({
  method: 'DELETE',
  path: '/api/orders/:orderId/methods/:appliedId',
  says: 'Take a method off an order again: its steps go, while none was begun, and what it brought.',
  may: 'orders.edit',
  input: Joi.object<TakeOff, true>({ ...byPlan, appliedId: field.id().required() }),
})

interface SavePlan {
  orderId: number
  version: number
  labour?: LabourLine[]
  parts?: PartLine[]
  tools?: ToolLine[]
  hazards?: HazardLine[]
}
export const savePlan = endpoint<SavePlan, OrderPlan>({
  method: 'PATCH',
  path: '/api/orders/:orderId/plan',
  says: 'Change what an order needs: each list that is sent takes the place of the one there.',
  may: 'orders.edit',
  input: Joi.object<SavePlan, true>({
    ...byPlan,
    labour: Joi.array().max(MOST_LINES).items(labourLine),
    parts: Joi.array().max(MOST_LINES).items(partLine),
    tools: Joi.array().max(MOST_LINES).items(toolLine),
    hazards: Joi.array().max(MOST_LINES).items(hazardLine),
  }),
})

interface AddStep extends Partial<StepFields> {
  orderId: number
  text: string
  afterId?: number | null
  assigneeId?: number | null
}
export const addStep = endpoint<AddStep, OrderPlan>({
  method: 'POST',
  path: '/api/orders/:orderId/steps',
  says: 'Add a step to an order.',
  may: 'orders.edit',
  input: Joi.object<AddStep, true>({
    ...ofOrder,
    ...stepFields,
    text: stepFields.text.required(),
    afterId: field.id().allow(null),
    assigneeId: field.id().allow(null),
  }),
})

interface EditStep extends Partial<StepFields> {
  id: number
  version: number
  afterId?: number | null
  /** Somebody who does this step without the order changing hands; null for who has the order. */
  assigneeId?: number | null
  /** Before which other step it stands; null for the end. */
  before?: number | null
}
export const editStep = endpoint<EditStep, OrderPlan>({
  method: 'PATCH',
  path: '/api/steps/:id',
  says: 'Change a step of an order, give it to somebody, or put it elsewhere.',
  may: 'orders.edit',
  input: Joi.object<EditStep, true>({
    id: field.id().required(),
    version: field.version().required(),
    ...stepFields,
    afterId: field.id().allow(null),
    assigneeId: field.id().allow(null),
    before: field.id().allow(null),
  }),
})

export const dropStep = endpoint<{ id: number; version: number }, OrderPlan>({
  method: 'DELETE',
  path: '/api/steps/:id',
  says: 'Take out a step nobody has begun.',
  may: 'orders.edit',
  input: Joi.object<{ id: number; version: number }, true>({ id: field.id().required(), version: field.version().required() }),
})

interface KeepAsMethod {
  orderId: number
  code: string
  name: string
}
export const keepAsMethod = endpoint<KeepAsMethod, { id: number }>({
  method: 'POST',
  path: '/api/orders/:orderId/plan/keep',
  says: 'Make a method of what was planned of an order.',
  may: 'registers.edit',
  input: Joi.object<KeepAsMethod, true>({ ...ofOrder, code: field.line(16).required(), name: field.line(120).required() }),
})

/** What the plan of an order will cost, beside what was entered and what such orders cost. */
export interface PlanEstimate extends Estimate {
  currency: string
  /** What stands on the order. */
  enteredMinor: number | null
  /** The amount that was agreed to, once it was. */
  approvedMinor: number | null
  /** What is planned differently from what was agreed to; null before anything was. */
  changes: PlanChange[] | null
  /** How far it may grow before it is asked about again, in percent, and whether it has grown further. */
  tolerancePercent: number
  outgrown: boolean
  /** What was finished of the same kind on this asset or assets of its class. */
  like: LikeCosts | null
  /** Whether who asks may take it as the estimate of the order. */
  mayTake: boolean
}

export const readPlanEstimate = endpoint<{ orderId: number }, PlanEstimate>({
  method: 'GET',
  path: '/api/orders/:orderId/plan/estimate',
  says: 'What the plan of an order will cost, line by line, beside the estimate that was entered and what such orders really cost.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>(ofOrder),
})
