import type { ListKind } from './fields'

/** A view that ships with the application. */
export interface ShippedView {
  key: string
  kind: ListKind
  name: string
  address: string
}

const OUTSTANDING = 'state=draft,to_approve,ready,dispatched,on_job,on_hold'

export const SHIPPED_VIEWS: ShippedView[] = [
  { key: 'outstanding', kind: 'orders', name: 'Outstanding', address: OUTSTANDING },
  { key: 'late', kind: 'orders', name: 'Past target', address: `${OUTSTANDING}&standing=past` },
  { key: 'under-way', kind: 'orders', name: 'Under way', address: 'state=dispatched,on_job' },
  { key: 'on-hold', kind: 'orders', name: 'On hold', address: 'state=on_hold&columns=number,summary,hold,priority,standing,place,lead' },
  {
    key: 'to-approve',
    kind: 'orders',
    name: 'To approve',
    address: 'state=to_approve&columns=number,summary,priority,standing,place,payer,estimate,supervisor',
  },
  { key: 'mine', kind: 'orders', name: 'Led by me', address: `${OUTSTANDING}&lead=me` },
  { key: 'my-team', kind: 'orders', name: 'My team', address: `${OUTSTANDING}&team=mine` },
  { key: 'finished', kind: 'orders', name: 'Finished', address: 'state=done,checked&sort=-finished&columns=number,summary,state,finished,place,who,payer' },
  {
    key: 'last-30-days',
    kind: 'orders',
    name: 'Finished in 30 days',
    address: 'state=done,checked,closed&finished=-30d..&sort=-finished&columns=number,summary,state,finished,place,trade,who',
  },
  { key: 'historical', kind: 'orders', name: 'Historical', address: 'state=closed&sort=-closed&columns=number,summary,closed,place,trade,payer,estimate' },
  { key: 'cancelled', kind: 'orders', name: 'Cancelled', address: 'state=cancelled&sort=-closed&columns=number,summary,closed,priority,place,lead' },
  { key: 'archived', kind: 'orders', name: 'Archived', address: 'archived=yes&sort=-number&columns=number,summary,state,closed,place,trade' },
  { key: 'undecided', kind: 'requests', name: 'Undecided', address: 'state=new,asked' },
  { key: 'asked', kind: 'requests', name: 'Waiting for an answer', address: 'state=asked' },
  {
    key: 'not-fixed',
    kind: 'requests',
    name: 'Said to be not fixed',
    address: 'repeats=yes&sort=-received&columns=number,summary,state,priority,received,place,reporter',
  },
  { key: 'declined', kind: 'requests', name: 'Declined', address: 'state=declined&sort=-decided&columns=number,summary,decided,place,channel,reporter' },
  {
    key: 'all-requests',
    kind: 'requests',
    name: 'Everything received',
    address: 'sort=-received&columns=number,summary,state,priority,received,place,channel,reporter',
  },
  {
    key: 'assets-warranty',
    kind: 'assets',
    name: 'Warranty in force',
    address: 'warrantyUntil=today..&sort=warrantyUntil&columns=tag,name,class,place,vendor,warrantyUntil,warrantyCovers',
  },
  {
    key: 'assets-worn',
    kind: 'assets',
    name: 'Poor or failing',
    address: 'condition=poor,failing&columns=tag,name,class,place,condition,criticality,installedOn,open',
  },
  { key: 'assets-open', kind: 'assets', name: 'With open work', address: 'open=yes' },
  { key: 'assets-nothing-said', kind: 'assets', name: 'Class not said', address: 'class=none&columns=tag,name,place,maker,model,serial' },
  { key: 'people-technicians', kind: 'people', name: 'Technicians', address: 'technician=yes' },
  {
    key: 'vendors-papers',
    kind: 'vendors',
    name: 'Papers ending in 60 days',
    address: 'insuranceUntil=..60d&sort=insuranceUntil&columns=name,email,phone,contractUntil,insuranceUntil,licenceUntil',
  },
  { key: 'payers-ending', kind: 'payers', name: 'Ending in 90 days', address: 'endsOn=..90d&sort=endsOn&columns=code,name,kind,budget,endsOn' },
  { key: 'equipment-lent', kind: 'equipment', name: 'Lent now', address: 'lent=yes' },
]
