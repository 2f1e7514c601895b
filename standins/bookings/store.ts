import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'

export interface CalendarObject {
  file: string
  etag: string
  data: string
}

/** Names that are safe in a folder and in an address. */
const isSafe = (name: string) => /^[A-Za-z0-9][A-Za-z0-9._@-]{0,120}$/.test(name)
const etagOf = (data: string) => `"${createHash('sha256').update(data).digest('hex').slice(0, 32)}"`

/** Calendars of rooms, each a folder with a file for each booking, so that a restart loses none. */
export class CalendarStore {
  private readonly root: string

  constructor(folder: string) {
    this.root = path.join(folder, 'room-calendars')
    mkdirSync(this.root, { recursive: true })
  }

  names(): string[] {
    return readdirSync(this.root, { withFileTypes: true })
      .filter((entry) => entry.isDirectory())
      .map((entry) => entry.name)
      .sort()
  }

  has(name: string): boolean {
    return isSafe(name) && existsSync(path.join(this.root, name))
  }

  /** What people call it. */
  titleOf(name: string): string {
    const file = path.join(this.root, name, 'title')
    return existsSync(file) ? readFileSync(file, 'utf8') : name
  }

  make(name: string, title: string): boolean {
    if (!isSafe(name)) return false
    mkdirSync(path.join(this.root, name))
    writeFileSync(path.join(this.root, name, 'title'), title)
    return true
  }

  objects(name: string): CalendarObject[] {
    return readdirSync(path.join(this.root, name))
      .filter((file) => file.endsWith('.ics'))
      .sort()
      .flatMap((file) => this.find(name, file) ?? [])
  }

  find(name: string, file: string): CalendarObject | null {
    if (!isSafe(file) || !this.has(name)) return null
    const at = path.join(this.root, name, file)
    if (!existsSync(at)) return null
    const data = readFileSync(at, 'utf8')
    return { file, data, etag: etagOf(data) }
  }

  /** @returns its etag, or null for a name that cannot be kept */
  put(name: string, file: string, data: string): string | null {
    if (!isSafe(file) || !file.endsWith('.ics')) return null
    const at = path.join(this.root, name, file)
    writeFileSync(`${at}.new`, data)
    renameSync(`${at}.new`, at)
    return etagOf(data)
  }

  remove(name: string, file: string): void {
    rmSync(path.join(this.root, name, file))
  }

  /** Changes with everything in the calendar. */
  tagOf(name: string): string {
    return etagOf(
      this.objects(name)
        .map(({ etag }) => etag)
        .join(),
    )
  }
}
