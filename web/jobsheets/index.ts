import { printOrder } from '#contract/jobsheets'
import { COPIES, COPY_NAMES } from '#core/jobsheets'
import type { Copy } from '#core/jobsheets'
import { address } from '#web/kit'
import type { OfferedMove } from '#web/sheets'

/** Offered beside the moves of an order: a sheet to print, for whoever it is meant. */
export const printing: OfferedMove = {
  move: 'print',
  label: 'Print',
  key: '',
  reasons: [],
  reason: 'none',
  choices: { name: 'Which copy', options: COPIES.map((copy) => ({ value: copy, label: COPY_NAMES[copy] })) },
}

/** A page of its own, in which it is looked at and printed; what is refused is said there. */
export const openPrint = (id: number, copy: string): void => void window.open(address(printOrder, { id, copy: copy as Copy }), '_blank', 'noopener')
