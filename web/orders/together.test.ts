import { mount } from '@vue/test-utils'
import { defineComponent, h } from 'vue'
import { editOrder, readOrder } from '#contract/orders'
import type { AssetSays } from '#contract/places'
import { OthersHere, useLive, TextField } from '#web/kit'
import { answering, settled } from '../../tests/kit/fetch'
import { signedIn } from '../../tests/kit/signedIn'
import { AssetFills, useAssetChoice, useSheet } from '#web/sheets'

beforeEach(() => signedIn())
afterEach(() => (document.body.innerHTML = ''))
const soon = () => new Promise((resolve) => setTimeout(resolve, 120))

describe('what an asset says', () => {
  const says: AssetSays = {
    id: 9,
    label: 'F-003 Freezer',
    place: { id: 4, label: 'TID-102 Freezer bank 2' },
    payer: { id: 2, label: '5100 Fish Health' },
    vendor: null,
    contact: { name: 'Nuala', phone: '555' },
    underWarrantyUntil: null,
  }
  beforeEach(() => answering({ 'GET /api/assets/9/says': { body: says } }))

  test('fills what is empty in one change, without asking', async () => {
    const keep = jest.fn()
    const { asking, pick } = useAssetChoice(
      () => ({ placeId: { value: null, words: '' }, payerId: { value: 2, words: '5100 Fish Health' }, contact: { value: '', words: '' } }),
      keep,
    )
    await pick(9)
    expect(asking.value).toBeNull()
    expect(keep).toHaveBeenCalledWith(9, ['placeId', 'contact'], says)
    await pick(null)
    expect(keep).toHaveBeenLastCalledWith(null, [], null)
  })

  test('where something else stands it asks field by field; leaving changes nothing', async () => {
    const keep = jest.fn()
    const choice = useAssetChoice(
      () => ({ placeId: { value: 7, words: 'KEL-104 Office' }, payerId: { value: 3, words: '5200 Seagrass' }, contact: { value: null, words: '' } }),
      keep,
    )
    await choice.pick(9)
    expect(choice.asking.value!.differences).toEqual([
      { field: 'placeId', label: 'Place', now: 'KEL-104 Office', says: 'TID-102 Freezer bank 2' },
      { field: 'payerId', label: 'Payer', now: '5200 Seagrass', says: '5100 Fish Health' },
    ])
    expect(keep).not.toHaveBeenCalled()
    const box = mount(AssetFills, { props: { asset: says.label, differences: choice.asking.value!.differences }, attachTo: document.body })
    await box.findAll('input[type="radio"]')[3]!.setValue(true)
    await box.find('form').trigger('submit')
    expect(box.emitted('choose')).toEqual([[['payerId']]])
    choice.choose(['payerId'])
    expect(keep).toHaveBeenCalledWith(9, ['contact', 'payerId'], says)
    await choice.pick(9)
    choice.leave()
    expect(choice.asking.value).toBeNull()
    expect(keep).toHaveBeenCalledTimes(1)
  })
})

describe('together', () => {
  test('who else has the Sheet open is said, and told on again when they go', async () => {
    let others: { name: string; since: string }[] = [{ name: 'Tobias', since: '2026-11-23T09:00:00Z' }]
    const sent = answering({ 'PATCH /api/presence': () => ({ body: { others } }) })
    const shown = mount(OthersHere, { props: { type: 'order', id: 7 } })
    await settled()
    expect(shown.text()).toBe('Tobias has this open too.')
    others = [...others, { name: 'Ines', since: '2026-11-23T09:01:00Z' }]
    useLive().presences.forEach((listener) => listener({ type: 'order', id: 7 }))
    await settled()
    expect(shown.text()).toBe('Tobias and Ines have this open too.')
    const asked = sent.length
    useLive().presences.forEach((listener) => listener({ type: 'order', id: 8 }))
    expect(sent).toHaveLength(asked)
    shown.unmount()
    expect(sent.at(-1)!.body).toEqual({ screen: sent[0]!.body.screen })
  })

  test('a field somebody else changed is marked with their name until it is looked at; others’ Sheets are none of its business', async () => {
    const row = { id: 7, version: 1, summary: 'Tap drips', access: null as string | null, requests: [] }
    const sent = answering({ 'GET /api/orders/7': () => ({ body: row }) })
    const shown = mount(
      defineComponent({
        setup() {
          const { sheet, follow } = useSheet(7, readOrder as never, editOrder as never)
          void sheet.load()
          follow((change) => change.orderId === 7)
          const now = () => sheet.value.value as unknown as typeof row | null
          return () =>
            h(
              'div',
              now()
                ? [
                    h(TextField, { name: 'summary', label: 'Summary', value: now()!.summary }),
                    h(TextField, { name: 'access', label: 'Getting in', value: now()!.access }),
                  ]
                : [],
            )
        },
      }),
      { attachTo: document.body },
    )
    await settled()
    const hear = (who: string, orderId: number) =>
      useLive().listeners.forEach((listener) =>
        listener({ seq: 1, kind: 'order.edit', requestId: null, orderId, visitId: null, register: null, recordId: null, who }),
      )
    hear('Tobias', 99)
    await soon()
    expect(sent).toHaveLength(1)
    Object.assign(row, { version: 2, access: 'Key 4' })
    hear('Tobias', 7)
    await soon()
    expect(shown.findAll('label').map((label) => label.text())).toEqual(['Summary', 'Getting inchanged by Tobias'])
    await shown.find('#f-access').trigger('focusin')
    expect(shown.text()).not.toContain('changed by')
    // One’s own change is no news.
    Object.assign(row, { version: 3, summary: 'Tap drips fast' })
    hear('Maren Quill', 7)
    await soon()
    expect(shown.text()).not.toContain('changed by')
  })
})
