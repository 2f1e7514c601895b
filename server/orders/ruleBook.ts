import { and, eq, inArray, sql } from 'drizzle-orm'
import { RULE_SECTIONS } from '#contract/setup'
import { DEFAULT_RULES } from '#core/orders'
import type { RuleBook, RuleNames, RuleSection } from '#core/orders'
import { conflict, logger, statement } from '#server/kit'
import type { Reader, Tx } from '#server/kit'
import { accounts, ownFields, payers, people, places, ruleSections } from '../tables'

/** The rules of a site as they are kept: those in force, how often each section was changed, and which cannot be read. */
export const readRuleBook = async (db: Reader, siteId: number) => bookOf(siteId, await sectionsOf(db, { siteId }))

/** What the rows of a site's sections say. */
export function bookOf(
  siteId: number,
  rows: { section: string; version: number; text: string }[],
): { book: RuleBook; versions: Record<RuleSection, number>; unreadable: RuleSection[] } {
  const names = Object.keys(RULE_SECTIONS) as RuleSection[]
  const versions = Object.fromEntries(names.map((name) => [name, rows.find((row) => row.section === name)?.version ?? 0]))
  const kept = rows.filter(isKnown).map(({ section, text }) => ({ section, content: readSection(section, text) }))
  const unreadable = kept.filter(({ content }) => content === null).map((row) => row.section)
  for (const section of unreadable) logger.error({ siteId, section }, 'rules that are kept cannot be read; the usual ones are in force')
  const own = kept.flatMap(({ section, content }) => (content === null ? [] : [[section, content] as const]))
  return { book: { ...DEFAULT_RULES, ...Object.fromEntries(own) }, versions: versions as Record<RuleSection, number>, unreadable }
}

const isKnown = <Row extends { section: string }>(row: Row): row is Row & { section: RuleSection } => row.section in RULE_SECTIONS

export const SECTION = { section: ruleSections.section, version: ruleSections.version, text: sql<string>`cast(${ruleSections.content} as char)` }

const sectionsOf = statement(['siteId'], (db, { siteId }) => db.select(SECTION).from(ruleSections).where(eq(ruleSections.siteId, siteId)))

/** What was read and checked before, by its text: whoever changes a section writes another text. */
const sectionsRead = new Map<string, unknown>()
const MOST_SECTIONS = 500

/** The rules of a section as they are kept, or null when its schema refuses them. They are shared: nobody changes them. */
function readSection(section: RuleSection, text: string): unknown {
  const key = `${section} ${text}`
  if (sectionsRead.has(key)) return sectionsRead.get(key)
  const { value, error } = RULE_SECTIONS[section].validate(parsed(text), { convert: false })
  if (sectionsRead.size >= MOST_SECTIONS) sectionsRead.clear()
  sectionsRead.set(key, error ? null : value)
  return sectionsRead.get(key)
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

/** One section alone, for what needs no more of the rules. */
export async function sectionOf<Section extends RuleSection>(db: Reader, siteId: number, section: Section): Promise<RuleBook[Section]> {
  const rows = await db
    .select(SECTION)
    .from(ruleSections)
    .where(and(eq(ruleSections.siteId, siteId), eq(ruleSections.section, section)))
  return bookOf(siteId, rows).book[section]
}

/** The rules in force at a site: its own sections, and the usual ones where it has none. */
export const rulesOf = async (db: Reader, siteId: number): Promise<RuleBook> => (await readRuleBook(db, siteId)).book

/**
 * Changes one section, which counts its version on; somebody may change another one meanwhile.
 * @throws ProblemReply 409 when somebody changed this one since `version`
 */
export async function saveRuleSection<Section extends RuleSection>(
  tx: Tx,
  siteId: number,
  section: Section,
  version: number,
  content: RuleBook[Section],
): Promise<void> {
  const mine = and(eq(ruleSections.siteId, siteId), eq(ruleSections.section, section))
  await tx.insert(ruleSections).ignore().values({ siteId, section, content: DEFAULT_RULES[section], version: 0 })
  const [row] = await tx.select({ version: ruleSections.version }).from(ruleSections).where(mine).for('update')
  if (row!.version !== version) throw conflict(row!.version, [])
  await tx
    .update(ruleSections)
    .set({ content, version: version + 1 })
    .where(mine)
}

export interface RuleIds {
  places: number[]
  payers: number[]
  accounts: number[]
  own: number[]
}

/** What the ids in rules are called, so that a rule reads as a sentence. One statement, and one for own fields where a rule asks for some. */
export async function namesFor(db: Reader, ids: RuleIds): Promise<RuleNames> {
  const parts = [
    ids.places.length
      ? sql`select 'place' as what, ${places.id}, concat(${places.code}, ' ', ${places.name}) as name from ${places} where ${inArray(places.id, ids.places)}`
      : null,
    ids.payers.length
      ? sql`select 'payer' as what, ${payers.id}, concat(${payers.code}, ' ', ${payers.name}) as name from ${payers} where ${inArray(payers.id, ids.payers)}`
      : null,
    ids.accounts.length
      ? sql`select 'account' as what, ${accounts.id}, ${people.name} as name from ${accounts} join ${people} on ${eq(people.id, accounts.personId)} where ${inArray(accounts.id, ids.accounts)}`
      : null,
  ].filter((part) => part !== null)
  const rows = parts.length ? ((await db.execute(sql.join(parts, sql` union all `)))[0] as unknown as { what: string; id: number; name: string }[]) : []
  const fields = ids.own.length ? await db.select().from(ownFields).where(inArray(ownFields.id, ids.own)) : []
  const nameOf = (what: string, missing: string) => (id: number) => rows.find((row) => row.what === what && row.id === id)?.name ?? missing
  return {
    place: nameOf('place', 'a place that is gone'),
    payer: nameOf('payer', 'a payer that is gone'),
    account: nameOf('account', 'somebody who is gone'),
    own: (id) => fields.find((field) => field.id === id) ?? null,
  }
}

/** Every id the rules of a book name. */
export function idsIn(book: Pick<RuleBook, 'reasons' | 'approvals' | 'escalations'>): RuleIds {
  const conditions = [...book.reasons, ...book.approvals, ...book.escalations].map((rule) => rule.when)
  const asked = [...book.approvals.flatMap((rule) => rule.asks), ...book.escalations.flatMap((rule) => rule.tell)]
  return {
    places: conditions.flatMap((when) => when.placeId ?? []),
    payers: conditions.flatMap((when) => when.payerIds ?? []),
    own: conditions.flatMap((when) => when.own?.fieldId ?? []),
    accounts: asked.flatMap((one) => (typeof one === 'string' ? [] : one.accountId)),
  }
}
