/** Every move of an order by its name; what each needs stands in `lifecycle.ts`. */
export const ORDER_MOVE_NAMES = [
  'submit',
  'approve',
  'sendBack',
  'askAgain',
  'dispatch',
  'begin',
  'recall',
  'start',
  'hold',
  'resume',
  'finish',
  'reopen',
  'check',
  'post',
  'close',
  'reverse',
  'cancel',
  'discard',
] as const
export type OrderMove = (typeof ORDER_MOVE_NAMES)[number]
