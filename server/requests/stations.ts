import { and, eq, isNotNull, isNull, or } from 'drizzle-orm'
import { requests } from '../tables'

/** Intake holds what nobody has taken up; Triage what is being decided or waits for an answer. */
export const atIntake = and(eq(requests.state, 'new'), isNull(requests.takenUpAt))
export const atTriage = or(eq(requests.state, 'asked'), and(eq(requests.state, 'new'), isNotNull(requests.takenUpAt)))
