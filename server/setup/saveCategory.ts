import * as contract from '#contract/setup'
import { command, mustReachAll } from '#server/kit'
import { keepCategory } from '#server/requests'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.saveCategory, async ({ tx, who, input, now, tell }) => {
  mustReachAll(who)
  await keepCategory(tx, who, now, input)
  await tell({ kind: 'setup.category', details: { code: input.code, retired: input.retired } })
  return readIntakeSheet(tx, who)
})
