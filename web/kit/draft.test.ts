import { nextTick, ref } from 'vue'
import { dropDrafts, useDraft, useFormDraft } from '#web/kit'

beforeEach(() => sessionStorage.clear())

describe('a draft', () => {
  test('is there again, goes with what it is about, and is gone once it was sent', async () => {
    const id = ref(1)
    const text = useDraft(() => `comment-${id.value}`)
    text.value = 'half a sent'
    await nextTick()
    expect(useDraft(() => 'comment-1').value).toBe('half a sent')
    id.value = 2
    await nextTick()
    expect(text.value).toBe('')
    id.value = 1
    await nextTick()
    text.value = ''
    await nextTick()
    expect(useDraft(() => 'comment-1').value).toBe('')
    expect(sessionStorage).toHaveLength(0)
  })

  test('what stands there otherwise may change: it is followed until something was written over it', async () => {
    const usual = ref('The usual words')
    const text = useDraft(
      () => 'wording',
      () => usual.value,
    )
    usual.value = 'Words of the site'
    await nextTick()
    expect(text.value).toBe('Words of the site')
    text.value = 'Being written'
    await nextTick()
    usual.value = 'Changed by somebody else'
    await nextTick()
    expect(text.value).toBe('Being written')
    dropDrafts('wording')
    expect(
      useDraft(
        () => 'wording',
        () => usual.value,
      ).value,
    ).toBe('Changed by somebody else')
  })
})

describe('a form of several fields', () => {
  const start = () => ({ title: '', places: [] as { id: number }[] })

  test('is there again, deep changes too, until it was sent', () => {
    const first = useFormDraft('notice-new', start())
    first.form.title = 'Lift is out'
    first.form.places.push({ id: 7 })
    const again = useFormDraft('notice-new', start())
    expect([again.kept.value, again.form]).toEqual([true, { title: 'Lift is out', places: [{ id: 7 }] }])
    again.drop()
    expect([again.kept.value, again.form, sessionStorage.length]).toEqual([false, start(), 0])
    expect(useFormDraft('notice-new', start()).kept.value).toBe(false)
  })

  test('is another one for another key; fields it no longer has are left out, and what cannot be read is nothing', () => {
    useFormDraft('notice-1-3', start()).form.title = 'Over version three'
    expect(useFormDraft('notice-1-4', start()).form.title).toBe('')
    sessionStorage.setItem('evrix-draft-old', JSON.stringify({ title: 'Kept', colour: 'red' }))
    expect(useFormDraft('old', start()).form).toEqual({ title: 'Kept', places: [] })
    sessionStorage.setItem('evrix-draft-broken', '{"title":')
    expect(useFormDraft('broken', start()).form).toEqual(start())
  })

  test('typed back to what it was, nothing is kept', () => {
    const { form } = useFormDraft('notice-new', start())
    form.title = 'x'
    form.title = ''
    expect(sessionStorage).toHaveLength(0)
  })
})
