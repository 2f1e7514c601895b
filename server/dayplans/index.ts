import type { Route } from '#server/kit'
import computeDayPlan from './computeDayPlan'
import listDayPlans from './listDayPlans'
import readDayPlan from './readDayPlan'
import takeDayPlan from './takeDayPlan'

export { dayPlanWorks, sweepDayPlans } from './planner'
export const routes: Route[] = [computeDayPlan, listDayPlans, readDayPlan, takeDayPlan]
