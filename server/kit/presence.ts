import type { EventEmitter } from 'node:events'

export interface OpenSheet {
  type: 'request' | 'order'
  id: number
}

/** A Sheet with the site it belongs to: who does not act there hears nothing of it. */
export interface SeenSheet extends OpenSheet {
  siteId: number
}

interface Screen {
  sheet: SeenSheet
  accountId: number
  name: string
  since: Date
  seenAt: Date
}

/** A screen that has not been heard of for so long is closed. */
const GONE_AFTER_MS = 45_000

/**
 * Who has which Sheet open, by screen. Kept in memory alone: it is of this moment, and screens say it
 * again every few seconds.
 */
export class Presence {
  private readonly screens = new Map<string, Screen>()

  constructor(private readonly published: EventEmitter) {}

  /** This screen shows this Sheet, or none; others who show it hear of a change. */
  show(named: string, who: { accountId: number; name: string }, sheet: SeenSheet | null, now: Date): void {
    // A screen is its person's: another's, of the same name, is another.
    const screen = `${who.accountId}:${named}`
    const before = this.screens.get(screen)
    const same = before && sheet && sameSheet(before.sheet, sheet)
    if (sheet) this.screens.set(screen, { sheet, accountId: who.accountId, name: who.name, since: same ? before.since : now, seenAt: now })
    else this.screens.delete(screen)
    if (same) return
    if (before) this.tell(before.sheet)
    if (sheet) this.tell(sheet)
  }

  /** Others who have this Sheet open, each once, the longest first. */
  others(sheet: OpenSheet, accountId: number, now: Date): { name: string; since: Date }[] {
    for (const [key, screen] of this.screens) if (now.getTime() - screen.seenAt.getTime() > GONE_AFTER_MS) this.screens.delete(key)
    const here = [...this.screens.values()].filter((screen) => sameSheet(screen.sheet, sheet) && screen.accountId !== accountId)
    return here
      .filter((screen, index) => here.findIndex((one) => one.accountId === screen.accountId) === index)
      .map(({ name, since }) => ({ name, since }))
      .sort((a, b) => a.since.getTime() - b.since.getTime())
  }

  private tell(sheet: SeenSheet): void {
    this.published.emit('presence', sheet)
  }
}

const sameSheet = (a: OpenSheet, b: OpenSheet) => a.type === b.type && a.id === b.id
