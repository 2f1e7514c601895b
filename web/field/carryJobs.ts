import { listJobDocuments, readJobDocument } from '#contract/documents'
import * as contract from '#contract/field'
import { readSurroundings } from '#contract/findings'
import { listJobSteps } from '#contract/methods'
import { readAttachment } from '#contract/orders'
import { useCarrying } from '#web/devices'
import { address } from '#web/kit'

/** A document larger than this is read when it is opened (our own choice, no source). */
const LARGEST_CARRIED = 4_000_000
const MARKS = 'marks'

/** What could not be read is tried again so soon, each time after twice as long, up to this (our own choice, no source). */
const [AGAIN_MS, LATEST_AGAIN_MS] = [4_000, 600_000]

let round: Promise<void> | null = null
let soon: ReturnType<typeof setTimeout> | undefined
let pause = AGAIN_MS

/** Has everything on this device that the jobs of the days ahead need, reading what changed; one round at a time. */
export const carryJobs = (): Promise<void> => (round ??= carry().finally(() => (round = null)))

/** A job of which something is missing would be missed where there is no signal: it is not left until Rounds is opened again. */
function tryAgain(): void {
  clearTimeout(soon)
  soon = setTimeout(() => void carryJobs().catch(tryAgain), pause)
  pause = Math.min(pause * 2, LATEST_AGAIN_MS)
}

async function carry(): Promise<void> {
  const carrying = useCarrying()
  if (!carrying.device) return
  const { marks } = await carrying.fetchKept(contract.carryJobs, {})
  const known = (await carrying.kept<Record<number, string>>(MARKS)) ?? {}
  const now: Record<number, string> = {}
  for (const { visitId, mark } of marks) {
    if (known[visitId] === mark || (await carryJob(visitId))) now[visitId] = mark
    await carrying.keep(MARKS, { ...known, ...now })
  }
  await carrying.keep(MARKS, now)
  await carrying.dropJobs(new Set(marks.map(({ visitId }) => visitId)))
  const isWhole = marks.every(({ visitId }) => visitId in now)
  // Whoever looks from outside sees whether the phone may go.
  document.documentElement.dataset.carried = isWhole ? 'yes' : 'partly'
  if (isWhole) pause = AGAIN_MS
  else tryAgain()
}

/** @returns whether all of it is here */
async function carryJob(visitId: number): Promise<boolean> {
  const carrying = useCarrying()
  try {
    const job = await carrying.fetchKept(contract.readJob, { visitId })
    await carrying.fetchKept(listJobSteps, { visitId })
    await carrying.fetchKept(readSurroundings, { visitId })
    const { rows } = await carrying.fetchKept(listJobDocuments, { visitId })
    for (const { fileId, bytes } of rows) if (bytes <= LARGEST_CARRIED) await carrying.blob(address(readJobDocument, { visitId, fileId }))
    for (const { id } of [...job.photos, ...job.answers.flatMap(({ photos }) => photos), ...job.talk.rows.flatMap(({ photos }) => photos)])
      await carrying.blob(address(readAttachment, { id }))
    return true
  } catch {
    // What could not be read now is read with the next round, or when its page is opened.
    return false
  }
}
