import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { PERSON_FIELDS, TEAM_FIELDS } from '#core/registers'
import type { PersonFields, TeamFields } from '#core/registers'

export type PersonSheet = RecordSheet<PersonFields>
export const readPerson = readOne<PersonFields>('people')
export const addPerson = addOne<PersonFields, 'name'>('people', 'registers.edit', PERSON_FIELDS)
export const editPerson = editOne<PersonFields>('people', 'registers.edit', PERSON_FIELDS)
export const retirePerson = retireOne<PersonFields>('people', 'registers.edit')
export const restorePerson = restoreOne<PersonFields>('people', 'registers.edit')

export type TeamSheet = RecordSheet<TeamFields>
export const readTeam = readOne<TeamFields>('teams')
export const addTeam = addOne<TeamFields, 'name'>('teams', 'registers.edit', TEAM_FIELDS)
export const editTeam = editOne<TeamFields>('teams', 'registers.edit', TEAM_FIELDS)
export const retireTeam = retireOne<TeamFields>('teams', 'registers.edit')
export const restoreTeam = restoreOne<TeamFields>('teams', 'registers.edit')
