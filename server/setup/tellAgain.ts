import * as contract from '#contract/setup'
import { command, notFound, tryTellingAgain } from '#server/kit'
import { untoldRows } from './listUntold'

export default command(contract.tellAgain, async ({ tx, who, input, now, service }) => {
  if (!(await untoldRows(tx, who)).some((row) => row.id === input.id)) throw notFound('event')
  await tryTellingAgain(tx, input.id, now)
  service.publisher.lookBack()
  return { rows: await untoldRows(tx, who) }
})
