import type { Reason } from '#core/kit'
import { isSameSkill, skillsOnce } from '#core/people'

/** A step is ticked, takes a measured value, takes one of a few answers, or wants a photo. */
export const STEP_KINDS = ['plain', 'measured', 'choice', 'photo'] as const
export type StepKind = (typeof STEP_KINDS)[number]
export const STEP_KIND_NAMES: Record<StepKind, string> = {
  plain: 'Done or not',
  measured: 'Measured value',
  choice: 'One of several answers',
  photo: 'Photo wanted',
}

/** Leave in writing that dangerous work takes (common practice, no source). */
export const PERMITS = ['hot_work', 'isolation', 'confined_space', 'height', 'roof', 'digging'] as const
export type Permit = (typeof PERMITS)[number]
export const PERMIT_NAMES: Record<Permit, string> = {
  hot_work: 'Hot work',
  isolation: 'Electrical isolation',
  confined_space: 'Confined space',
  height: 'Work at height',
  roof: 'Access to a roof',
  digging: 'Digging',
}

export interface StepFields {
  text: string
  kind: StepKind
  /** Of a measured value: its unit, and the least and most that are right. */
  unit: string | null
  least: number | null
  most: number | null
  /** What can be answered, where it is one of several. */
  choices: string[]
  /** Has to be done before anybody is dispatched. */
  first: boolean
}

/** What a step is before anything is said of it. */
export const PLAIN_STEP: StepFields = { text: '', kind: 'plain', unit: null, least: null, most: null, choices: [], first: false }

/** A step of a method; `after` is the place of an earlier one it waits for, counted from 0. */
export interface MethodStep extends StepFields {
  after: number | null
}

export interface LabourLine {
  tradeId: number
  people: number
  /** Of each of them. */
  minutes: number
  /** What each of them has to be able to do besides the trade, by name; none where it is left out. */
  skills?: string[]
}
export interface PartLine {
  partId: number
  /** Decimal text with at most three places. */
  quantity: string
}
/** A tool by what it is called, or a piece of equipment that is lent to jobs. */
export interface ToolLine {
  text: string
  equipmentId: number | null
}
export interface HazardLine {
  hazard: string
  control: string
  permit: Permit | null
}

/** What is needed for a job: labour by trade, parts, tools, and what is dangerous about it. */
export interface PlanLines {
  labour: LabourLine[]
  parts: PartLine[]
  tools: ToolLine[]
  hazards: HazardLine[]
}

/** What a method says is done. */
export interface MethodContent extends PlanLines {
  steps: MethodStep[]
}

export const MOST_STEPS = 80
export const MOST_LINES = 40
/** That one line of labour asks for. */
export const MOST_SKILLS = 8
export const NO_CONTENT: MethodContent = { steps: [], labour: [], parts: [], tools: [], hazards: [] }

/** Why a step cannot be kept as it is; empty when it can. */
export function stepReasons(step: StepFields, field = ''): Reason[] {
  const at = (name: string) => (field ? `${field}.${name}` : name)
  const reasons: Reason[] = []
  if (!step.text.trim()) reasons.push({ code: 'text_missing', sentence: 'Say what is done.', field: at('text') })
  if (step.kind === 'measured' && !step.unit) reasons.push({ code: 'unit_missing', sentence: 'Say in which unit it is measured.', field: at('unit') })
  if (step.kind === 'measured' && step.least !== null && step.most !== null && step.most < step.least)
    reasons.push({ code: 'limits', sentence: 'The most that is right is less than the least.', field: at('most') })
  if (step.kind === 'choice' && new Set(step.choices.map((one) => one.toLowerCase())).size < 2)
    reasons.push({ code: 'choices_missing', sentence: 'Give at least two different answers to choose from.', field: at('choices') })
  return reasons
}

/** Why what a method says cannot be kept; each reason at its line. */
export function contentReasons(content: MethodContent): Reason[] {
  return [
    ...content.steps.flatMap((step, index) => [
      ...stepReasons(step, `steps.${index}`),
      ...(step.after !== null && !(step.after >= 0 && step.after < index)
        ? [{ code: 'after', sentence: 'A step can wait for one that stands before it.', field: `steps.${index}.after` }]
        : []),
    ]),
    ...twice(content.labour, ({ tradeId }) => tradeId, 'labour', 'This trade stands here already.', 'tradeId'),
    ...twice(content.parts, ({ partId }) => partId, 'parts', 'This part stands here already.', 'partId'),
  ]
}

function twice<Line>(lines: Line[], key: (line: Line) => unknown, list: string, sentence: string, field: string): Reason[] {
  const seen = new Set<unknown>()
  return lines.flatMap((line, index) => {
    const known = seen.has(key(line))
    seen.add(key(line))
    return known ? [{ code: 'twice', sentence, field: `${list}.${index}.${field}` }] : []
  })
}

/** Minutes of labour in all: people times the minutes of each. */
export const labourMinutes = (labour: readonly LabourLine[]): number => labour.reduce((sum, { people, minutes }) => sum + people * minutes, 0)

/** What several methods need together: labour of a trade is added up in minutes, with as many people as any of them wants; parts are added up, what is said twice is said once. */
export function together(plans: readonly PlanLines[]): PlanLines {
  const labour = new Map<number, LabourLine>()
  const parts = new Map<number, PartLine>()
  const tools = new Map<string, ToolLine>()
  const hazards = new Map<string, HazardLine>()
  for (const plan of plans) {
    for (const line of plan.labour) {
      const known = labour.get(line.tradeId)
      const people = Math.max(line.people, known?.people ?? 0)
      const minutes = Math.ceil((line.people * line.minutes + (known ? known.people * known.minutes : 0)) / people)
      const skills = skillsOnce([...(known?.skills ?? []), ...(line.skills ?? [])])
      labour.set(line.tradeId, { tradeId: line.tradeId, people, minutes, ...(skills.length ? { skills } : {}) })
    }
    for (const line of plan.parts)
      parts.set(line.partId, { partId: line.partId, quantity: addQuantities(line.quantity, parts.get(line.partId)?.quantity ?? '0') })
    for (const line of plan.tools) tools.set(`${line.equipmentId ?? line.text.toLowerCase()}`, line)
    for (const line of plan.hazards) hazards.set(`${line.hazard}|${line.control}|${line.permit ?? ''}`.toLowerCase(), line)
  }
  return { labour: [...labour.values()], parts: [...parts.values()], tools: [...tools.values()], hazards: [...hazards.values()] }
}

const thousandths = (quantity: string) => Math.round(Number(quantity) * 1000)
/** Quantities are added in thousandths, so that no part of one is lost. */
const addQuantities = (one: string, other: string): string => String((thousandths(one) + thousandths(other)) / 1000)

/**
 * What is left when one of the methods goes: its labour and parts are taken off what stands there, also when that was
 * changed since; a tool or a hazard goes unless another method brought it too.
 */
export function withoutMethod(plan: PlanLines, gone: PlanLines, others: readonly PlanLines[]): PlanLines {
  const rest = together(others)
  return {
    labour: plan.labour.flatMap((line) => {
      const brought = gone.labour.find(({ tradeId }) => tradeId === line.tradeId)
      if (!brought) return [line]
      const left = labourMinutes([line]) - labourMinutes([brought])
      if (left <= 0) return []
      const kept = rest.labour.find(({ tradeId }) => tradeId === line.tradeId)
      const people = Math.min(line.people, kept?.people ?? line.people)
      const among = (skills: readonly string[] | undefined, name: string) => (skills ?? []).some((one) => isSameSkill(one, name))
      const skills = (line.skills ?? []).filter((name) => !among(brought.skills, name) || among(kept?.skills, name))
      const { skills: _, ...plain } = line
      return [{ ...plain, people, minutes: Math.ceil(left / people), ...(skills.length ? { skills } : {}) }]
    }),
    parts: plan.parts.flatMap((line) => {
      const brought = gone.parts.find(({ partId }) => partId === line.partId)
      const left = thousandths(line.quantity) - thousandths(brought?.quantity ?? '0')
      return left > 0 ? [{ ...line, quantity: String(left / 1000) }] : []
    }),
    tools: plan.tools.filter((line) => !gone.tools.some((one) => isSame(one, line)) || rest.tools.some((one) => isSame(one, line))),
    hazards: plan.hazards.filter((line) => !gone.hazards.some((one) => isSame(one, line)) || rest.hazards.some((one) => isSame(one, line))),
  }
}

const isSame = (one: object, other: object): boolean => Object.entries(one).every(([name, value]) => (other as Record<string, unknown>)[name] === value)
