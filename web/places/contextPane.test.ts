import { mount } from '@vue/test-utils'
import type { Context } from '#contract/places'
import { useActs } from '#web/kit'
import { answering, settled } from '../../tests/kit/fetch'
import { signedIn } from '../../tests/kit/signedIn'
import ContextPane from './ContextPane.vue'

jest.mock('vue-router', () => ({ RouterLink: { props: ['to'], template: '<a><slot /></a>' }, useRoute: () => ({ query: {} }), useRouter: () => ({}) }))

const known = (id: number): Context => ({
  place: { id, code: `P-${id}`, name: 'Room', within: '', access: null, openOrders: 0, openRequests: 0 },
  asset: {
    id,
    tag: `A-${id}`,
    name: 'Pump',
    maker: null,
    model: null,
    installedOn: null,
    warrantyFrom: null,
    warrantyUntil: null,
    warrantyCovers: null,
    warrantyTerms: null,
    underWarranty: false,
    repairs90Days: 0,
  },
  reporter: null,
  open: [],
  history: [],
})
const about = (id: number) => ({ placeId: id, assetId: id, orderId: id })

test('its keys open what the open Sheet is about, and nothing while the facts of the one before still stand', async () => {
  signedIn()
  answering({ 'GET /api/context?placeId=1': { body: known(1) }, 'GET /api/context?placeId=2': { body: known(2) } })
  const pane = mount(ContextPane, { props: { about: about(1), station: 'dispatch' } })
  const offered = () =>
    useActs()
      .all()
      .map(({ key, label }) => `${key} ${label}`)
  await settled()
  expect(offered()).toEqual(['. Portrait of A-1 Pump', ', Portrait of P-1 Room'])
  // Another Sheet opens: first nothing but its number is known, then what it is about, then what is known of that.
  await pane.setProps({ leaving: true })
  expect(offered()).toEqual([])
  await pane.setProps({ about: about(2), leaving: false })
  expect(pane.text()).toContain('A-1')
  expect(offered()).toEqual([])
  await settled()
  expect(pane.text()).toContain('A-2')
  expect(offered()).toEqual(['. Portrait of A-2 Pump', ', Portrait of P-2 Room'])
})
