import { mount } from '@vue/test-utils'
import { DEFAULT_MATRIX, HAZARD_TABLE } from '#core/requests'
import { HazardFields, PriorityGrid } from '#web/sheets'

afterEach(() => (document.body.innerHTML = ''))
const grid = (more = {}) => mount(PriorityGrid, { props: { matrix: DEFAULT_MATRIX, consequence: null, urgency: null, ...more }, attachTo: document.body })
const press = (box: ReturnType<typeof grid>, key: string) => box.find('.decision').trigger('keydown', { key })
const inReach = (box: ReturnType<typeof grid>) => box.findAll('[tabindex="0"]').map((one) => one.attributes('aria-label'))

describe('who is affected and how soon', () => {
  test('each cell says the priority it gives, and one press chooses both', async () => {
    const box = grid()
    expect(box.findAll('tbody tr')).toHaveLength(5)
    expect(box.find('[aria-label^="A building, Now"]').text()).toBe('Emergency')
    await box.find('[aria-label^="A room, Today"]').trigger('click')
    expect(box.emitted('choose')).toEqual([[{ consequence: 'room', urgency: 'today' }]])
  })

  test('two digits choose both; one that is out of the grid begins nothing', async () => {
    const box = grid()
    await press(box, '9')
    await press(box, '2')
    await press(box, '7')
    expect(box.emitted('choose')).toBeUndefined()
    expect(box.find('tr.begun').text()).toContain('One person')
    await press(box, '3')
    expect(box.emitted('choose')).toEqual([[{ consequence: 'one_person', urgency: 'today' }]])
    expect(box.find('tr.begun').exists()).toBe(false)
  })

  test('digits in it are its own; other keys go on to the Sheet', async () => {
    const box = grid()
    const outside = jest.fn()
    document.body.addEventListener('keydown', outside)
    await press(box, '1')
    await press(box, 'k')
    expect(outside.mock.calls.map(([event]: [KeyboardEvent]) => event.key)).toEqual(['k'])
    document.body.removeEventListener('keydown', outside)
  })

  test('the keyboard stops at one cell: the chosen one, or the first, and arrows lead on', async () => {
    expect(inReach(grid())).toEqual(['Nobody affected, Can wait: Deferred'])
    const box = grid({ consequence: 'room', urgency: 'today' })
    expect(inReach(box)).toEqual(['A room, Today: Urgent'])
    expect(box.find('[aria-pressed="true"]').attributes('aria-label')).toBe('A room, Today: Urgent')
    await press(box, 'ArrowDown')
    await press(box, 'ArrowRight')
    await press(box, 'ArrowRight')
    expect(inReach(box)).toEqual(['A building, Now: Emergency'])
    expect(document.activeElement?.getAttribute('aria-label')).toBe('A building, Now: Emergency')
  })

  test('who may not change it reads it, and changes nothing', async () => {
    const box = grid({ consequence: 'room', urgency: 'today', disabled: true })
    await press(box, '1')
    await press(box, '1')
    await box.find('[aria-label^="A room, Now"]').trigger('click')
    expect(box.emitted('choose')).toBeUndefined()
  })
})

describe('a hazard', () => {
  const hazard = (more = {}) =>
    mount(HazardFields, { props: { table: HAZARD_TABLE, severity: null, likelihood: null, ...more } as never, attachTo: document.body })

  test('is one line until there is one; the grid says what each gives', async () => {
    const box = hazard()
    expect([box.text(), box.find('table').exists()]).toEqual([expect.stringContaining('Nothing is said of one'), false])
    await box.findAll('button')[0]!.trigger('click')
    expect(box.find('[aria-label^="Remote, Catastrophic"]').text()).toBe('Serious')
    await box.find('[aria-label^="Probable, Critical"]').trigger('click')
    expect(box.emitted('save')).toEqual([[{ hazardLikelihood: 'probable', hazardSeverity: 'critical' }]])
  })

  test('what was said is read as a sentence; none takes both back', async () => {
    const box = hazard({ severity: 'critical', likelihood: 'probable' })
    expect(box.text()).toContain('Critical, probable: high hazard')
    await box.findAll('button').at(-1)!.trigger('click')
    expect(box.emitted('save')).toEqual([[{ hazardSeverity: 'none', hazardLikelihood: null }]])
    expect(hazard({ severity: 'none' }).text()).toContain('There is none')
    expect(hazard({ disabled: true }).find('button').exists()).toBe(false)
  })
})
