import { ref } from 'vue'
import type { JobRow } from '#contract/field'
import { newsOf, seenAs } from '#core/field'
import { useCarrying } from '#web/devices'

const SEEN = 'seen'
type Seen = Record<number, string>

/** Which jobs are new on this phone, or another than when they were looked at last. The first list of all is no news. */
export function useNews() {
  const carrying = useCarrying()
  const seen = ref<Seen | null>(null)

  /** Once the list is there: what was never looked at is news from now on. */
  async function look(jobs: readonly JobRow[]): Promise<void> {
    const before = await carrying.kept<Seen>(SEEN)
    seen.value = before ?? Object.fromEntries(jobs.map((job) => [job.visitId, seenAs(job)]))
    if (!before) await carrying.keep(SEEN, seen.value)
  }
  const newsFor = (job: JobRow) => (seen.value && carrying.device && job.visitState === 'planned' ? newsOf(job, seen.value[job.visitId]) : null)
  return { look, newsFor }
}

/** A job was opened: it is no news any more. */
export async function sawJob(job: Parameters<typeof seenAs>[0]): Promise<void> {
  const carrying = useCarrying()
  const seen = (await carrying.kept<Seen>(SEEN)) ?? {}
  if (seen[job.visitId] !== seenAs(job)) await carrying.keep(SEEN, { ...seen, [job.visitId]: seenAs(job) })
}
