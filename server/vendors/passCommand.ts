import type { Endpoint } from '#contract/kit'
import type { PassSheet } from '#contract/vendors'
import type { OnSite } from '#server/field'
import { preparedCommand, readPicture, recordEvent } from '#server/kit'
import type { CommandContext, Picture, Route, Tell } from '#server/kit'
import { lockPass, openPass } from './openPass'
import type { OpenPass } from './openPass'
import { readPassSheet } from './passSheet'

interface ByPass {
  token: string
}
type PassJob<Input, Ready> = CommandContext<Input, Ready> & OnSite & Pick<OpenPass, 'vendor' | 'site' | 'pass'>
type Change<Input, Ready> = (job: PassJob<Input, Ready>) => Promise<unknown>

/** A change by a pass, with the order of its visit locked; the vendor acts by name, and is answered how the job stands then. */
export const passCommand = <Input extends ByPass>(endpoint: Endpoint<Input, PassSheet>, change: Change<Input, undefined>): Route =>
  preparedPassCommand(endpoint, () => Promise.resolve(undefined), change)

/** The same with something made ready before. Nothing is received of whom the pass does not let in. */
export const preparedPassCommand = <Input extends ByPass, Ready>(
  endpoint: Endpoint<Input, PassSheet>,
  prepare: Parameters<typeof preparedCommand<Input, PassSheet, Ready>>[1],
  change: Change<Input, Ready>,
): Route =>
  preparedCommand(
    endpoint,
    prepare,
    async (context) => {
      const { tx, input, now, service } = context
      const { visit, order, worker, vendor, site, pass } = await lockPass(tx, input.token, now)
      const tell: Tell = (happening) => recordEvent(tx, worker, now, happening)
      await change({ ...context, visit, order, vendor, site, pass, actor: worker, at: now, tell })
      return readPassSheet(tx, service, input.token, now)
    },
    async ({ db, input, now }) => void (await openPass(db, input.token, now)),
  )

/** The same with a picture. */
export const picturePassCommand = <Input extends ByPass>(endpoint: Endpoint<Input, PassSheet>, change: Change<Input, Picture>): Route =>
  preparedPassCommand(endpoint, ({ request }) => readPicture(request.file), change)
