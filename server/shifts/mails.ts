import { and, eq, inArray, isNull, or } from 'drizzle-orm'
import { mail, notice } from '#server/kit'
import type { Mails, Telling } from '#server/kit'
import { accountRoles, accounts, leaveAsks, people, sites, technicians } from '../tables'

type Told = Partial<{ askId: number; name: string; from: string; until: string }>
const factsIn = ({ event }: Telling): Told => (event.details ?? {}) as Told
const span = ({ from, until }: Told) => (from === until ? `on ${from}` : `from ${from} to ${until}`)

/** Who asked hears what was decided: inside, and by mail. */
async function tellAsker(telling: Telling, what: string): Promise<void> {
  const { tx, event, service } = telling
  const facts = factsIn(telling)
  const [asker] = await tx
    .select({ id: accounts.id, email: accounts.email, name: people.name, site: sites.name, phone: sites.deskPhone })
    .from(leaveAsks)
    .innerJoin(technicians, eq(technicians.id, leaveAsks.technicianId))
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(sites, eq(sites.id, leaveAsks.siteId))
    .where(eq(leaveAsks.id, facts.askId ?? 0))
  if (!asker) return
  const sentence = `Your leave ${span(facts)} ${what}`
  await notice(telling, [asker.id], [sentence, event.reason].filter(Boolean).join(': '), '/rounds/time')
  const text = [
    `${sentence} by ${event.actorName}.`,
    ...(event.reason ? ['', `“${event.reason}”`] : []),
    '',
    `${service.publicUrl()}/rounds/time`,
    '',
    `${asker.site}, ${asker.phone}`,
  ]
  await mail(telling, event.kind, asker.email, sentence, text.join('\n'))
}

/** Leave that is asked for is heard of by the desk of the site, what becomes of it by who asked. */
export const shiftMails = {
  'leave.ask': async (telling) => {
    const { tx, event } = telling
    const facts = factsIn(telling)
    const desk = await tx
      .select({ id: accounts.id })
      .from(accountRoles)
      .innerJoin(accounts, and(eq(accounts.id, accountRoles.accountId), isNull(accounts.disabledAt)))
      .where(and(inArray(accountRoles.role, ['coordinator', 'manager']), or(isNull(accountRoles.siteId), eq(accountRoles.siteId, event.siteId ?? 0))))
    await notice(
      telling,
      desk.map(({ id }) => id),
      `${facts.name ?? 'Somebody'} asks for leave ${span(facts)}`,
      '/board?leave',
    )
  },
  'leave.agree': (telling) => tellAsker(telling, 'was agreed to'),
  'leave.refuse': (telling) => tellAsker(telling, 'was refused'),
} satisfies Mails
