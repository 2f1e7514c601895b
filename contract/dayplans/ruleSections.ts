import Joi from 'joi'
import { MOST_WEIGHT } from '#core/dayplans'
import type { PlanWeights } from '#core/dayplans'
import { PRIORITIES } from '#core/requests'

const weight = () => Joi.number().min(0).max(MOST_WEIGHT).precision(2).required()
const byPriority = () => Joi.object(Object.fromEntries(PRIORITIES.map((priority) => [priority, weight()]))).required()

/** What the weights of a computed plan have to look like. */
export const DAY_PLAN_RULES: { dayPlans: Joi.Schema<PlanWeights> } = {
  dayPlans: Joi.object<PlanWeights, true>({
    late: byPriority(),
    unplanned: byPriority(),
    travel: weight(),
    overtime: weight(),
    movedPromise: weight(),
    movedPromiseMinute: weight(),
    handedPromise: weight(),
    moved: weight(),
    handed: weight(),
    knows: weight(),
    repair: weight(),
  }),
}
