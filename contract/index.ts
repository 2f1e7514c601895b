import * as approvals from '#contract/approvals'
import * as assets from '#contract/assets'
import * as board from '#contract/board'
import * as bookings from '#contract/bookings'
import * as closures from '#contract/closures'
import * as cobie from '#contract/cobie'
import * as dayplans from '#contract/dayplans'
import * as devices from '#contract/devices'
import * as dispatch from '#contract/dispatch'
import * as documents from '#contract/documents'
import * as downtimes from '#contract/downtimes'
import * as feeds from '#contract/feeds'
import * as field from '#contract/field'
import * as findings from '#contract/findings'
import * as floorplans from '#contract/floorplans'
import * as help from '#contract/help'
import * as insight from '#contract/insight'
import type { Endpoint } from '#contract/kit'
import * as jobsheets from '#contract/jobsheets'
import * as ledger from '#contract/ledger'
import * as meters from '#contract/meters'
import * as methods from '#contract/methods'
import * as lists from '#contract/lists'
import * as orders from '#contract/orders'
import * as own from '#contract/own'
import * as people from '#contract/people'
import * as places from '#contract/places'
import * as portraits from '#contract/portraits'
import * as preventive from '#contract/preventive'
import * as quotes from '#contract/quotes'
import * as readiness from '#contract/readiness'
import * as requests from '#contract/requests'
import * as setup from '#contract/setup'
import * as spots from '#contract/spots'
import * as shifts from '#contract/shifts'
import * as stock from '#contract/stock'
import * as talk from '#contract/talk'
import * as templates from '#contract/templates'
import * as travel from '#contract/travel'
import * as vendors from '#contract/vendors'
import * as windows from '#contract/windows'

/** Every endpoint by name, for what walks the whole contract: OpenAPI and the permission tests. */
export const contract: Record<string, Endpoint<never, unknown>> = Object.fromEntries(
  [
    people,
    requests,
    lists,
    help,
    orders,
    approvals,
    dispatch,
    field,
    devices,
    vendors,
    windows,
    travel,
    shifts,
    downtimes,
    feeds,
    jobsheets,
    quotes,
    closures,
    board,
    dayplans,
    ledger,
    places,
    assets,
    stock,
    bookings,
    templates,
    readiness,
    meters,
    methods,
    portraits,
    own,
    findings,
    spots,
    talk,
    floorplans,
    documents,
    cobie,
    insight,
    preventive,
    setup,
  ].flatMap((room) => Object.entries(room).filter(([, thing]) => typeof thing === 'object' && thing !== null && 'path' in thing && 'says' in thing)),
)
