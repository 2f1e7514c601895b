import type { Route } from '#server/kit'
import changeView from './changeView'
import changeRecords from './changeRecords'
import chooseUsualView from './chooseUsualView'
import dropView from './dropView'
import exportList from './exportList'
import listGroups from './listGroups'
import listOrderLines from './listOrderLines'
import listRecordLines from './listRecordLines'
import listRequestLines from './listRequestLines'
import listViews from './listViews'
import moveOrders from './moveOrders'
import moveRequests from './moveRequests'
import peekRow from './peekRow'
import readListFacts from './readListFacts'
import readNeededReason from './readNeededReason'
import saveView from './saveView'
import search from './search'

export const routes: Route[] = [
  listOrderLines,
  listRequestLines,
  listRecordLines,
  readListFacts,
  listGroups,
  peekRow,
  exportList,
  listViews,
  saveView,
  // Before those with an id in its place.
  chooseUsualView,
  changeView,
  dropView,
  readNeededReason,
  moveOrders,
  moveRequests,
  changeRecords,
  search,
]
