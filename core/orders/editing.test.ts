import { editReason, fixedFields, ORDER_STATES } from '#core/orders'

/** As it is agreed, written out by hand: what stays in which state. */
test('what was agreed to stays from the submission on; what the charge tells stays once it is settled', () => {
  const agreed = ['estimateMinor', 'shares', 'kind', 'placeId', 'assetId', 'supervisorId']
  const told = ['summary', 'description', 'noteForPayer']
  const stays = Object.fromEntries(ORDER_STATES.map((state) => [state, fixedFields(state)]))
  expect(stays).toEqual({
    draft: [],
    ...Object.fromEntries(['to_approve', 'ready', 'dispatched', 'on_job', 'on_hold'].map((state) => [state, agreed])),
    // Who pays can be put right between the work and the charge.
    ...Object.fromEntries(['done', 'checked'].map((state) => [state, agreed.filter((field) => field !== 'shares')])),
    ...Object.fromEntries(['closed', 'cancelled'].map((state) => [state, [...agreed, ...told]])),
  })
})

test('the sentence says what to do, or that nothing is to be done', () => {
  expect(editReason('ready', 'estimateMinor')).toMatchObject({
    code: 'agreed',
    field: 'estimateMinor',
    sentence: expect.stringContaining('Send the order back') as string,
  })
  expect(editReason('closed', 'summary')?.sentence).toBe('The order is over; this stays as it was.')
  expect(editReason('ready', 'summary')).toBeNull()
  expect(editReason('closed', 'leadId')).toBeNull()
})
