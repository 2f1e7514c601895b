import type { Endpoint } from '#contract/kit'
import type { JobSheet, OnJob, SentBefore } from '#contract/field'
import { isHeardLater, momentOf } from '#core/field'
import { refuse } from '#core/kit'
import { preparedCommand, readPicture, recordEvent } from '#server/kit'
import type { Actor, Asker, CommandContext, Picture, Route, Tell } from '#server/kit'
import { dropUpload, readUpload } from '#server/uploads'
import { readJobSheet } from './jobSheet'
import { inTurn } from './inTurn'
import { lockMyVisit, myVisit } from './myVisit'
import type { OnSite } from './onSite'

/**
 * When something recorded on a phone happened, and who did it as its events name them.
 * @throws Refusal when it was too long ago
 */
export function momentFor(who: Asker, happenedAt: string | undefined, now: Date): { at: Date; actor: Actor } {
  const at = momentOf(happenedAt ? new Date(happenedAt) : null, now)
  return { at, actor: isHeardLater(at, now) ? { ...who, heardAt: now } : who }
}

export interface JobContext<Input, Ready> extends CommandContext<Input, Ready>, OnSite {}
type JobChange<Input, Ready> = (context: JobContext<Input, Ready>) => Promise<void>

/** A change on one of my jobs, with its order locked; it answers how the job stands then, unless only that it was done is asked for (RFC 7240). */
export const jobCommand = <Input extends OnJob>(endpoint: Endpoint<Input, JobSheet>, change: JobChange<Input, undefined>): Route =>
  preparedJobCommand(endpoint, () => Promise.resolve(undefined), change)

/** The same with something made ready before, as photos are. Nothing is read of whom the job is not. */
export function preparedJobCommand<Input extends OnJob, Ready>(
  endpoint: Endpoint<Input, JobSheet>,
  prepare: Parameters<typeof preparedCommand<Input, JobSheet, Ready>>[1],
  change: JobChange<Input, Ready>,
): Route {
  const route = preparedCommand(
    endpoint,
    prepare,
    async (context) => {
      const { tx, who, input, now } = context
      const { visit, order } = await lockMyVisit(tx, who, input.visitId)
      const { at, actor } = momentFor(who, input.happenedAt, now)
      const tell: Tell = (happening) => recordEvent(tx, actor, at, happening)
      await change({ ...context, visit, order, at, actor, tell })
      if (context.request.get('Prefer') !== 'return=minimal') return readJobSheet(tx, who, visit.id)
      context.response.setHeader('Preference-Applied', 'return=minimal')
      return null as never
    },
    ({ db, who, input }) => myVisit(db, who, input.visitId),
  )
  return inTurn(route)
}

/** The same with a picture that was sent in pieces before. What it was is gone once it was taken, and a repeat is answered without it. */
export const sentPictureCommand = <Input extends OnJob & SentBefore>(endpoint: Endpoint<Input, JobSheet>, change: JobChange<Input, Picture>): Route =>
  preparedJobCommand(
    endpoint,
    async ({ service, who, input }) => {
      const sent = await readUpload(service.db, who, input)
      return sent && readPicture(sent)
    },
    async ({ ready, ...job }) => {
      if (!ready) refuse('upload_gone', 'The picture is not there any more. Send it again.', 'upload')
      await change({ ...job, ready })
      await dropUpload(job.tx, job.input.upload)
    },
  )
