import { createRouter, createWebHistory } from 'vue-router'
import type { RouteLocationNormalized, RouteRecordRaw } from 'vue-router'
import type { Permission } from '#core/people'
import { REGISTERS } from '#core/registers'
import { call, useSession } from '#web/kit'

declare module 'vue-router' {
  interface RouteMeta {
    /** What the screen takes; without it, anybody may open it. */
    may?: Permission
    title: string
    /** Works from what the phone carries along, without signal. */
    carried?: true
  }
}

const desk: RouteRecordRaw[] = [
  {
    path: '/desk/:station(intake|triage|planning|dispatch|field|wrapup|charges)/:type(request|order)?/:id(\\d+)?',
    name: 'bench',
    component: () => import('./desk/BenchView.vue'),
    meta: { may: 'desk.read', title: 'The Desk' },
  },
  { path: '/lists', name: 'listsHome', component: () => import('./lists/ListsHome.vue'), meta: { may: 'desk.read', title: 'Lists' } },
  {
    path: '/lists/:kind(orders|requests)',
    name: 'list',
    component: () => import('./lists/ListView.vue'),
    props: true,
    meta: { may: 'desk.read', title: 'Lists' },
  },
  { path: '/search', name: 'search', component: () => import('./lists/SearchView.vue'), meta: { may: 'desk.read', title: 'Search' } },
  {
    path: `/registers/:register(${REGISTERS.join('|')})/:id(\\d+)`,
    name: 'portrait',
    component: () => import('./portraits/PortraitView.vue'),
    meta: { may: 'desk.read', title: 'Portrait' },
  },
  {
    path: `/registers/:register(${REGISTERS.join('|')})/table`,
    name: 'registerTable',
    component: () => import('./setup/TableView.vue'),
    meta: { may: 'desk.read', title: 'From a table' },
  },
  {
    path: `/registers/:register(${REGISTERS.join('|')})?`,
    name: 'registers',
    component: () => import('./places/RegistersView.vue'),
    meta: { may: 'desk.read', title: 'Registers' },
  },
  {
    path: '/floorplans/:id(\\d+)?',
    name: 'floorplans',
    component: () => import('./floorplans/FloorplanView.vue'),
    meta: { may: 'desk.read', title: 'Floor plans' },
  },
  { path: '/cobie', name: 'cobie', component: () => import('./cobie/CobieView.vue'), meta: { may: 'registers.edit', title: 'COBie' } },
  { path: '/documents', name: 'documents', component: () => import('./documents/DocumentsView.vue'), meta: { may: 'desk.read', title: 'Documents' } },
  { path: '/transfers', name: 'transfers', component: () => import('./assets/TransfersView.vue'), meta: { may: 'desk.read', title: 'Transfers' } },
  { path: '/findings', name: 'findings', component: () => import('./findings/FindingsView.vue'), meta: { may: 'desk.read', title: 'Findings' } },
  { path: '/board', name: 'board', component: () => import('./board/BoardView.vue'), meta: { may: 'desk.read', title: 'Board' } },
  { path: '/my-steps', name: 'mySteps', component: () => import('./methods/MyStepsView.vue'), meta: { may: 'desk.read', title: 'My steps' } },
  { path: '/preventive', name: 'preventive', component: () => import('./preventive/PreventiveView.vue'), meta: { may: 'desk.read', title: 'Preventive' } },
  { path: '/templates', name: 'templates', component: () => import('./templates/TemplatesView.vue'), meta: { may: 'desk.read', title: 'Templates' } },
  { path: '/stock', name: 'toBuy', component: () => import('./stock/ToBuyView.vue'), meta: { may: 'desk.read', title: 'Stock: what to buy' } },
  { path: '/stock/purchases', name: 'purchases', component: () => import('./stock/PurchasesView.vue'), meta: { may: 'desk.read', title: 'Stock: purchases' } },
  {
    path: '/stock/purchases/:id(\\d+)',
    name: 'purchase',
    component: () => import('./stock/PurchaseView.vue'),
    meta: { may: 'desk.read', title: 'Purchase' },
  },
  { path: '/stock/equipment', name: 'equipment', component: () => import('./bookings/EquipmentView.vue'), meta: { may: 'desk.read', title: 'Equipment' } },
  { path: '/stock/count', name: 'count', component: () => import('./stock/CountView.vue'), meta: { may: 'desk.read', title: 'Stock: count' } },
  { path: '/ledger', name: 'ledger', component: () => import('./ledger/LedgerView.vue'), meta: { may: 'ledger.read', title: 'Ledger' } },
  {
    path: '/ledger/:payerId(\\d+)/:month',
    name: 'statement',
    component: () => import('./ledger/StatementView.vue'),
    meta: { may: 'ledger.read', title: 'Statement' },
  },
  { path: '/insight', name: 'insight', component: () => import('./insight/InsightView.vue'), meta: { may: 'insight.read', title: 'Insight' } },
  { path: '/setup', name: 'setup', component: () => import('./setup/SetupView.vue'), meta: { may: 'setup.edit', title: 'Setup' } },
  { path: '/setup/intake', name: 'intakeSetup', component: () => import('./setup/IntakeView.vue'), meta: { may: 'setup.edit', title: 'Setup: intake' } },
  { path: '/setup/rules', name: 'rules', component: () => import('./setup/RulesView.vue'), meta: { may: 'setup.edit', title: 'Setup: deciding' } },
  { path: '/setup/fields', name: 'ownFields', component: () => import('./own/OwnFieldsView.vue'), meta: { may: 'setup.edit', title: 'Setup: own fields' } },
  { path: '/setup/states', name: 'ownStates', component: () => import('./setup/OwnStatesView.vue'), meta: { may: 'setup.edit', title: 'Setup: own states' } },
  { path: '/setup/tables', name: 'tables', component: () => import('./setup/TableView.vue'), meta: { may: 'setup.edit', title: 'Setup: tables' } },
  { path: '/kept-mail', name: 'keptMail', component: () => import('./requests/KeptMailView.vue'), meta: { may: 'requests.triage', title: 'Kept mail' } },
  { path: '/help-pages', name: 'help', component: () => import('./help/HelpView.vue'), meta: { may: 'desk.read', title: 'Notices and help' } },
  { path: '/api-reference', name: 'api', component: () => import('./setup/ApiView.vue'), meta: { may: 'desk.read', title: 'API' } },
]

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'home', component: () => import('./people/SignInView.vue'), meta: { title: 'Evrix' } },
    { path: '/sign-in', name: 'signIn', component: () => import('./people/SignInView.vue'), meta: { title: 'Sign in' } },
    {
      path: '/c/:site',
      name: 'counter',
      component: () => import('./requests/CounterView.vue'),
      meta: { title: 'Report something' },
      beforeEnter: portraitOfLabel,
    },
    { path: '/c/:site/mine', name: 'askForMine', component: () => import('./requests/MineView.vue'), meta: { title: 'What I have sent' } },
    { path: '/mine/:token', name: 'mine', component: () => import('./requests/MineView.vue'), meta: { title: 'What I have sent' } },
    { path: '/t/:token', name: 'track', component: () => import('./requests/TrackView.vue'), meta: { title: 'Your request' } },
    { path: '/a/:token', name: 'approval', component: () => import('./approvals/ApprovalView.vue'), meta: { title: 'To approve' } },
    { path: '/w/:token', name: 'times', component: () => import('./windows/TimesView.vue'), meta: { title: 'A time to come' } },
    {
      path: '/job/:id(\\d+)',
      name: 'scanned',
      component: () => import('./people/LostView.vue'),
      meta: { may: 'self.read', title: 'Job' },
      beforeEnter: jobOfSheet,
    },
    { path: '/q/:token', name: 'quote', component: () => import('./quotes/QuoteView.vue'), meta: { title: 'A price' } },
    { path: '/p/:token', name: 'pass', component: () => import('./vendors/PassView.vue'), meta: { title: 'Your job' } },
    { path: '/rounds', name: 'rounds', component: () => import('./field/RoundsView.vue'), meta: { may: 'field.work', title: 'Rounds', carried: true } },
    { path: '/rounds/:visitId(\\d+)', name: 'job', component: () => import('./field/JobView.vue'), meta: { may: 'field.work', title: 'Job', carried: true } },
    { path: '/rounds/time', name: 'myTime', component: () => import('./shifts/MyTimeView.vue'), meta: { may: 'field.work', title: 'My time', carried: true } },
    { path: '/rounds/spot', name: 'spot', component: () => import('./spots/SpotView.vue'), meta: { may: 'field.work', title: 'On the spot', carried: true } },
    {
      path: '/rounds/steps',
      name: 'myFieldSteps',
      component: () => import('./methods/MyStepsView.vue'),
      meta: { may: 'field.work', title: 'My steps', carried: true },
    },
    {
      path: '/readiness/:id(\\d+)?',
      name: 'readiness',
      component: () => import('./readiness/ReadinessView.vue'),
      meta: { may: 'spaces.say', title: 'Readiness' },
    },
    { path: '/desk', redirect: '/desk/intake' },
    { path: '/', component: () => import('./desk/DeskFrame.vue'), meta: { title: 'The Desk' }, children: desk },
    { path: '/:rest(.*)*', name: 'lost', component: () => import('./people/LostView.vue'), meta: { title: 'Not found' } },
  ],
})

/** A scanned label opens the Portrait for who is at the desk, the spot for who works in the field, and the Counter for everybody else; to report from there is asked for. */
async function portraitOfLabel(to: RouteLocationNormalized): Promise<true | string> {
  const { place, asset, report } = to.query
  if (report || (typeof place !== 'string' && typeof asset !== 'string')) return true
  const session = useSession()
  await session.ensure()
  if (session.self && !session.can('desk.read') && session.can('field.work'))
    return `/rounds/spot?${new URLSearchParams({ site: String(to.params.site), ...(typeof asset === 'string' ? { asset } : { place: String(place) }) }).toString()}`
  if (!session.self || !session.can('desk.read')) return true
  const { portraitOf } = await import('./portraits/scanned')
  return (await portraitOf(String(to.params.site), place, asset)) ?? true
}

/** The code of a printed sheet leads to one’s own visit, or to the Sheet. */
async function jobOfSheet(to: RouteLocationNormalized): Promise<true | string> {
  const { findJob } = await import('#contract/jobsheets')
  return call(findJob, { id: Number(to.params.id) }).then(
    ({ address }) => address,
    () => true,
  )
}

router.beforeEach(async (to) => {
  document.title = `${to.meta.title} · Evrix`
  if (!to.meta.may && to.name !== 'home') return true
  const session = useSession()
  if (to.meta.carried)
    await (await import('./field/carry')).openRounds(() => router.push({ name: 'signIn', query: { to: router.currentRoute.value.fullPath } }))
  await session.ensure()
  if (to.name === 'home') return session.self ? homeOf(session) : { name: 'signIn' }
  if (!session.self) return { name: 'signIn', query: { to: to.fullPath } }
  if (!session.can(to.meta.may!)) return { name: 'lost', params: { rest: ['not-allowed'] }, query: { why: 'role' } }
  return true
})

/** Where somebody begins their day. */
export function homeOf(session: ReturnType<typeof useSession>): string {
  const roles = session.self?.roles ?? []
  if (roles.includes('coordinator')) return '/desk/intake'
  if (roles.includes('technician')) return '/rounds'
  if (roles.includes('approver')) return '/desk/planning'
  if (roles.includes('billing_clerk')) return '/desk/charges'
  return roles.includes('manager') ? '/insight' : '/setup'
}
