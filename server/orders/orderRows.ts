import { and, asc, desc, eq, gt, isNull, lte, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { FILE_COLUMNS, gathered, holdersAt, statement } from '#server/kit'
import type { Reader } from '#server/kit'
import { budgetColumns, materialLinesOf } from '#server/ledger'
import {
  accountRoles,
  accounts,
  approvals,
  attachments,
  bookings,
  charges,
  deputies,
  equipment,
  orders,
  orderShares,
  orderSteps,
  ownFields,
  ownValues,
  payers,
  people,
  postings,
  ruleSections,
  stints,
  technicians,
  vendorBills,
  vendorParts,
  vendorPasses,
  vendors,
  visits,
} from '../tables'
import type { OrderRecord } from './orderRecord'
import { bookOf, SECTION } from './ruleBook'

/** Everything that hangs on an order and that both its rules and its Sheet look at. */
export type OrderRows = Awaited<ReturnType<typeof readOrderRows>>

/** Reads it in one go: seven statements, none of which waits for another unless they share a connection. What follows from it is computed from the rows. */
export async function readOrderRows(db: Reader, order: OrderRecord, now: Date) {
  const { id: orderId, siteId } = order
  const [[small], visitRows, stintRows, materials, approvalRows, approvers, postingRows] = await Promise.all([
    smallRowsOf(db, { orderId, siteId }),
    visitsOf(db, { orderId }),
    stintsOf(db, { orderId }),
    materialLinesOf(db, orderId),
    approvalsOf(db, { orderId }),
    approversAt(db, { siteId, now }),
    postingsOf(db, { orderId }),
  ])
  const { sections, ...gatheredRows } = small!
  return {
    ...gatheredRows,
    rules: bookOf(siteId, sections).book,
    visits: visitRows,
    stints: stintRows,
    materials,
    approvals: approvalRows,
    approvers,
    postings: postingRows,
  }
}

const SHARE = {
  payerId: orderShares.payerId,
  shareBp: orderShares.shareBp,
  code: payers.code,
  name: payers.name,
  consentAccountId: payers.consentAccountId,
  consentAboveMinor: payers.consentAboveMinor,
}

/** A rule needs no more of a number than JSON carries. */
const OWN = { fieldId: ownFields.id, text: ownValues.text, number: ownValues.number, day: ownValues.day }

const MEMBER = {
  id: orders.id,
  number: orders.number,
  summary: orders.summary,
  state: orders.state,
  heldFrom: orders.heldFrom,
}

/** Who pays, the orders of the group this one leads, its files, and the rules of its site. */
const smallRowsOf = statement(['orderId', 'siteId'], (db, { orderId, siteId }) =>
  db
    .select({
      shares: gathered(
        SHARE,
        sql`from ${orderShares} join ${payers} on ${eq(payers.id, orderShares.payerId)} where ${eq(orderShares.orderId, orderId)}`,
        orderShares.position,
      ),
      members: gathered(MEMBER, sql`from ${orders} where ${and(eq(orders.leadOrderId, orderId), isNull(orders.discardedAt))}`, orders.id),
      files: gathered(FILE_COLUMNS, sql`from ${attachments} where ${eq(attachments.orderId, orderId)}`, attachments.id),
      own: gathered(
        OWN,
        sql`from ${ownFields} left join ${ownValues} on ${and(eq(ownValues.fieldId, ownFields.id), eq(ownValues.recordId, orderId))} where ${and(eq(ownFields.kind, 'orders'), isNull(ownFields.retiredAt))}`,
        ownFields.id,
      ),
      stepsFirst: gathered(
        { text: orderSteps.text },
        sql`from ${orderSteps} where ${and(eq(orderSteps.orderId, orderId), eq(orderSteps.first, true), eq(orderSteps.state, 'open'))}`,
        orderSteps.position,
      ),
      equipmentOut: gathered(
        { name: equipment.name },
        sql`from ${bookings} join ${equipment} on ${eq(equipment.id, bookings.equipmentId)} where ${and(eq(bookings.orderId, orderId), eq(bookings.state, 'out'))}`,
        bookings.fromAt,
      ),
      sections: gathered(SECTION, sql`from ${ruleSections} where ${eq(ruleSections.siteId, siteId)}`, ruleSections.section),
    })
    .from(sql`dual`),
)

/** Who pays, with who consents for them. */
export const sharesOf = statement(['orderId'], (db, { orderId }) =>
  db
    .select(SHARE)
    .from(orderShares)
    .innerJoin(payers, eq(payers.id, orderShares.payerId))
    .where(eq(orderShares.orderId, orderId))
    .orderBy(asc(orderShares.position)),
)

/** The same with what their budgets say. */
export const sharesWithBudgetsOf = statement(['orderId', 'january'], (db, { orderId, january }) =>
  db
    .select({ ...SHARE, ...budgetColumns(db, january) })
    .from(orderShares)
    .innerJoin(payers, eq(payers.id, orderShares.payerId))
    .where(eq(orderShares.orderId, orderId))
    .orderBy(asc(orderShares.position)),
)

const visitsOf = statement(['orderId'], (db, { orderId }) =>
  db
    .select({
      visit: visits,
      person: people.name,
      vendor: vendors.name,
      pass: { id: vendorPasses.id, expiresAt: vendorPasses.expiresAt, revokedAt: vendorPasses.revokedAt },
      billId: vendorBills.id,
      brought: gathered(
        { name: vendorParts.name, quantity: vendorParts.quantity, unit: vendorParts.unit },
        sql`from ${vendorParts} where ${eq(vendorParts.visitId, visits.id)}`,
        vendorParts.id,
      ),
    })
    .from(visits)
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .leftJoin(vendorPasses, eq(vendorPasses.visitId, visits.id))
    .leftJoin(vendorBills, eq(vendorBills.visitId, visits.id))
    .where(eq(visits.orderId, orderId))
    .orderBy(asc(visits.plannedStart), asc(visits.id)),
)

const stintsOf = statement(['orderId'], (db, { orderId }) =>
  db
    .select({ stint: stints, person: people.name, vendor: vendors.name })
    .from(stints)
    .innerJoin(visits, eq(visits.id, stints.visitId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .leftJoin(technicians, eq(technicians.id, stints.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .where(eq(stints.orderId, orderId))
    .orderBy(asc(stints.startAt)),
)

/** Every decision asked for, the last round first. */
const approvalsOf = statement(['orderId'], (db, { orderId }) => {
  const [namedPerson, askedPerson, decidedPerson, forPerson] = [
    alias(people, 'named'),
    alias(people, 'asked'),
    alias(people, 'decided'),
    alias(people, 'acting_for'),
  ]
  const [namedAccount, askedAccount, decidedAccount, forAccount] = [
    alias(accounts, 'named_account'),
    alias(accounts, 'asked_account'),
    alias(accounts, 'decided_account'),
    alias(accounts, 'for_account'),
  ]
  return db
    .select({ approval: approvals, name: namedPerson.name, askedBy: askedPerson.name, decidedBy: decidedPerson.name, actingFor: forPerson.name })
    .from(approvals)
    .leftJoin(namedAccount, eq(namedAccount.id, approvals.accountId))
    .leftJoin(namedPerson, eq(namedPerson.id, namedAccount.personId))
    .leftJoin(askedAccount, eq(askedAccount.id, approvals.askedBy))
    .leftJoin(askedPerson, eq(askedPerson.id, askedAccount.personId))
    .leftJoin(decidedAccount, eq(decidedAccount.id, approvals.decidedBy))
    .leftJoin(decidedPerson, eq(decidedPerson.id, decidedAccount.personId))
    .leftJoin(forAccount, eq(forAccount.id, approvals.actingForId))
    .leftJoin(forPerson, eq(forPerson.id, forAccount.personId))
    .where(eq(approvals.orderId, orderId))
    .orderBy(desc(approvals.askedAt), approvals.position, approvals.id)
})

/** Those who approve at a site, the lowest limit first, each with who decides for them now while they are away. */
const approversAt = statement(['siteId', 'now'], (db, { siteId, now }) => {
  const [deputyAccount, deputyPerson] = [alias(accounts, 'deputy_account'), alias(people, 'deputy_person')]
  return db
    .selectDistinct({
      id: accounts.id,
      name: people.name,
      limitMinor: accounts.approvalLimitMinor,
      deputyId: deputies.deputyAccountId,
      deputy: deputyPerson.name,
      awayUntil: deputies.untilAt,
    })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .leftJoin(deputies, and(eq(deputies.forAccountId, accounts.id), lte(deputies.fromAt, now), gt(deputies.untilAt, now)))
    .leftJoin(deputyAccount, eq(deputyAccount.id, deputies.deputyAccountId))
    .leftJoin(deputyPerson, eq(deputyPerson.id, deputyAccount.personId))
    .where(holdersAt('orders.approve', siteId))
    .orderBy(asc(accounts.approvalLimitMinor), asc(accounts.id), asc(deputies.untilAt))
})

const postingsOf = statement(['orderId'], (db, { orderId }) =>
  db
    .select({
      posting: {
        id: postings.id,
        kind: postings.kind,
        round: postings.round,
        month: postings.month,
        at: postings.at,
        reversesId: postings.reversesId,
      },
      charge: {
        id: charges.id,
        postingId: charges.postingId,
        payerId: charges.payerId,
        shareBp: charges.shareBp,
        netMinor: charges.netMinor,
        taxMinor: charges.taxMinor,
        grossMinor: charges.grossMinor,
        ownCost: charges.ownCost,
      },
      code: payers.code,
      name: payers.name,
    })
    .from(postings)
    .leftJoin(charges, eq(charges.postingId, postings.id))
    .leftJoin(payers, eq(payers.id, charges.payerId))
    .where(eq(postings.orderId, orderId))
    .orderBy(asc(postings.id), asc(charges.id)),
)
