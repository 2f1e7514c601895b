import { and, eq, gt } from 'drizzle-orm'
import type { LeaveFile } from '#contract/shifts'
import * as contract from '#contract/shifts'
import { refuse } from '#core/kit'
import { leaveChanges } from '#core/shifts'
import type { CalendarLeave } from '#core/shifts'
import { contentOf, inThread, preparedCommand } from '#server/kit'
import type { Outgoing } from '#server/kit'
import { atWork, lockTechnician, tellCrew } from '#server/people'
import { dropLeaves, goAway, moveLeave } from '#server/people/records'
import { leaves } from '../tables'
import type { LeaveFileJob } from './readLeave.worker'

const readFile = inThread<LeaveFileJob, CalendarLeave[] | { wrong: string }>('readLeave.worker')

const DAY_MS = 86_400_000
/** What is over for longer is left as it is; nobody plans further ahead. */
const REACH = { back: 31, ahead: 550 }
const MOST_BYTES = 2_000_000

/** Looking and taking are the same call: what is taken is what would be shown at that moment. */
export default preparedCommand(
  contract.takeLeaveFile,
  ({ request }) => (request.file ? contentOf(request.file) : Promise.resolve(Buffer.alloc(0))),
  async ({ tx, who, input, now, ready: content, tell }): Promise<Outgoing<LeaveFile>> => {
    if (!content.length) refuse('file_missing', 'Choose a calendar file that is not empty.', 'file')
    if (content.length > MOST_BYTES) refuse('too_large', 'The file is larger than 2 MB. Export the leave of one person alone.', 'file')
    const found = await lockTechnician(tx, who, input.id)
    const [from, until] = [new Date(now.getTime() - REACH.back * DAY_MS), new Date(now.getTime() + REACH.ahead * DAY_MS)]
    const read = await readFile({ content: new Uint8Array(content), zone: found.zone, from, until })
    if ('wrong' in read) refuse('no_calendar', read.wrong, 'file')
    const kept = await tx
      .select()
      .from(leaves)
      .where(and(eq(leaves.technicianId, found.technician.id), gt(leaves.untilAt, from)))
    const changes = leaveChanges(
      read,
      kept.map((row) => ({ id: row.id, uid: row.uid, from: row.fromAt, until: row.untilAt, says: row.reason ?? '' })),
      now,
    )
    const line = ({ from: begins, until: ends, says }: Pick<CalendarLeave, 'from' | 'until' | 'says'>) => ({ from: begins, until: ends, says })
    if (input.take) {
      const row = ({ uid, from: fromAt, until: untilAt, says }: CalendarLeave) => ({ uid, fromAt, untilAt, reason: says.slice(0, 120) || null })
      await dropLeaves(
        tx,
        changes.gone.map(({ id }) => id),
      )
      for (const { leave, kept: before } of changes.changed) await moveLeave(tx, before.id, row(leave))
      await goAway(tx, found.technician.id, changes.added.map(row))
      const many = changes.added.length + changes.changed.length + changes.gone.length
      if (many) await tellCrew(tell, found, `leave, from the calendar ${input.name ?? ''}`.trim())
    }
    return {
      added: changes.added.map(line),
      changed: changes.changed.map(({ leave }) => line(leave)),
      gone: changes.gone.map(line),
      same: changes.same,
      bad: changes.bad.map(({ leave, sentence }) => ({ ...line(leave), sentence })),
      taken: input.take === true,
    }
  },
  ({ db, who, input }) => atWork(db, who, input.id),
)
