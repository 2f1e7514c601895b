import { ref } from 'vue'
import type { Problem } from '#contract/kit'
import { call, CallProblem, onLiveChange, provideFresh, useRead, useSession, useSoon, useUndo } from '#web/kit'
import type { LiveChange } from '#contract/insight'
import type { Endpoint } from '#contract/kit'
import { isActed } from '#core/events'

interface Versioned {
  id: number
  version: number
}

/** Both values of every field that two people changed at once. */
export interface Conflict {
  version: number
  fields: { field: string; theirs: unknown; yours: unknown }[]
  sent: Record<string, unknown>
}

/**
 * A Sheet that saves field by field. A refused field keeps its sentence beside it; a field somebody
 * else changed meanwhile becomes a conflict in which the person chooses.
 */
export function useSheet<Sheet extends Versioned, Input extends Versioned, More extends object = object>(
  id: number,
  read: Endpoint<{ id: number } & More, Sheet>,
  edit: Endpoint<Input, Sheet>,
  /** What else says which Sheet it is. */
  more: More = {} as More,
) {
  const said = useUndo()
  const sheet = useRead(read, { id, ...more }, { anew: true })
  const refused = ref<Problem | null>(null)
  const conflict = ref<Conflict | null>(null)
  const saving = ref(0)
  let line: Promise<unknown> = Promise.resolve()

  /** Saves these fields after those before them; answers whether it went in. */
  function save(fields: Omit<Partial<Input>, 'id' | 'version'>): Promise<boolean> {
    const mine = line.then(() => send(fields as Record<string, unknown>, sheet.value.value!.version))
    line = mine.catch(() => undefined)
    return mine
  }

  /** Saves a field that was typed over `base`; when it says something else by now, the person chooses. */
  function saveFrom(field: string, yours: unknown, base: unknown): Promise<boolean> {
    const now = (sheet.value.value as unknown as Record<string, unknown>)[field]
    if ((now ?? '') === (base ?? '')) return save({ [field]: yours } as never)
    conflict.value = { version: sheet.value.value!.version, fields: [{ field, theirs: now ?? null, yours }], sent: { [field]: yours } }
    return Promise.resolve(false)
  }

  async function send(fields: Record<string, unknown>, version: number): Promise<boolean> {
    saving.value++
    // What the person had before them when they sent it: by the time it is refused, the live line may have brought theirs.
    const seen = sheet.value.value
    try {
      sheet.value.value = await call(edit, { ...more, id, version, ...fields } as unknown as Input)
      refused.value = null
      return true
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      if (error.problem.status === 409) await meet(error.problem, fields, seen)
      else {
        refused.value = error.problem
        said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
      }
      return false
    } finally {
      saving.value--
    }
  }

  /** Somebody changed it meanwhile. Fields that do not clash are saved as they are. */
  async function meet(problem: Problem, sent: Record<string, unknown>, before: Sheet | null): Promise<void> {
    await sheet.load()
    const now = sheet.value.value
    if (!before || !now) return
    const seen = before as unknown as Record<string, unknown>
    const clash = (problem.conflict ?? []).filter(({ field, theirs }) => field in sent && JSON.stringify(flat(seen[field])) !== JSON.stringify(theirs))
    if (!clash.length) {
      await send(sent, now.version)
      return
    }
    conflict.value = { version: now.version, fields: clash, sent }
  }

  async function settle(keepMine: string[]): Promise<void> {
    const held = conflict.value
    if (!held) return
    conflict.value = null
    const clashing = held.fields.map((one) => one.field)
    const mine = Object.fromEntries(Object.entries(held.sent).filter(([field]) => keepMine.includes(field) || !clashing.includes(field)))
    if (Object.keys(mine).length) await send(mine, held.version)
  }

  /** What follows from the fields, or is shown for itself: not marked as changed. */
  const NOT_FIELDS = new Set(['version', 'facts', 'gauge', 'target', 'outcome', 'state', 'costs'])
  const FIELD_OF: Record<string, string> = { place: 'placeId', asset: 'assetId' }

  /** Reads the Sheet again when something it shows changes; fields somebody else changed are marked. */
  function follow(concerns: (change: LiveChange, now: Sheet) => boolean): void {
    const { mark } = provideFresh()
    let by: string | null = null
    const session = useSession()
    const reload = useSoon(async () => {
      const before = sheet.value.value as Record<string, unknown> | null
      const who = by
      by = null
      await sheet.load()
      const now = sheet.value.value as Record<string, unknown> | null
      if (!before || !now || !who) return
      const changed = Object.keys(now).filter((key) => !NOT_FIELDS.has(key) && JSON.stringify(before[key]) !== JSON.stringify(now[key]))
      mark(
        changed.map((key) => FIELD_OF[key] ?? key),
        who,
      )
    }, 80)
    onLiveChange((change) => {
      const now = sheet.value.value
      if (change && now && !concerns(change, now)) return
      if (change && change.who !== session.self?.name && isActed(change.kind)) by = change.who
      reload()
    })
  }

  const flat = (value: unknown) => (value === undefined ? null : value)
  const sentenceAt = (field: string) => refused.value?.reasons?.find((reason) => reason.field === field)?.sentence

  return { sheet, save, saveFrom, saving, refused, sentenceAt, conflict, settle, said, follow }
}
