import type { Route } from '#server/kit'
import editAccount from './editAccount'
import editHold from './editHold'
import editNumbering from './editNumbering'
import editTarget from './editTarget'
import readHealth from './readHealth'
import readOpenApi from './readOpenApi'
import readSetup from './readSetup'

export const routes: Route[] = [readSetup, editAccount, editTarget, editNumbering, editHold, readHealth, readOpenApi]
