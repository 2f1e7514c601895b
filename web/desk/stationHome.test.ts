import { mount } from '@vue/test-utils'
import type { StationNews } from '#contract/insight'
import { answering, settled } from '../../tests/kit/fetch'
import { signedIn } from '../../tests/kit/signedIn'
import StationHome from './StationHome.vue'

jest.mock('vue-router', () => ({
  RouterLink: { props: ['to'], template: '<a :href="to"><slot /></a>' },
  useRoute: () => ({ query: {} }),
  useRouter: () => ({}),
}))

test('what others changed is told whole, with what it was about and how often before', async () => {
  signedIn()
  const line = { type: 'order' as const, number: 'W-7', summary: 'Tap drips', at: '2026-11-23T10:30:00Z' }
  const news: StationNews = {
    next: [],
    changed: [
      { ...line, id: 7, who: 'Bram Oyelaran', kind: 'field.stint', details: { stint: 'travel' }, times: 3 },
      { ...line, id: 8, who: 'Northbay Cooling', kind: 'vendor.bill', details: { number: 'B-7', netMinor: 28_700 }, times: 1 },
      { ...line, id: 9, who: 'Ines Ferrall', kind: 'order.edit', details: { fields: { access: { from: null, to: 'Ring' } } }, times: 1 },
    ],
  }
  answering({ 'GET /api/flow/planning': { body: news } })
  const home = mount(StationHome, { props: { station: 'planning' } })
  await settled()
  expect(home.findAll('[aria-label="Changed since you last looked"] li .under').map((one) => one.text().replace(/^\S+ (\S+ )?(?=[A-Z])/, ''))).toEqual([
    'Bram Oyelaran set the clock to travel, 2 more before',
    'Northbay Cooling entered a bill B-7, 287.00 before tax',
    'Ines Ferrall changed the order',
  ])
  expect(home.find('[aria-label="Changed since you last looked"] a').attributes('href')).toBe('/desk/planning/order/7')
})
