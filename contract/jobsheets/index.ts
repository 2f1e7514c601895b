import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { COPIES } from '#core/jobsheets'
import type { Copy } from '#core/jobsheets'

export const printOrder = endpoint<{ id: number; copy: Copy }, Blob>({
  method: 'GET',
  path: '/api/orders/:id/print/:copy',
  says: 'One order on one page as PDF: for who does the work (no money), for the desk (with money), for the payer (with the note for them).',
  may: 'desk.read',
  answers: 'pdf',
  input: Joi.object<{ id: number; copy: Copy }, true>({ id: field.id().required(), copy: field.oneOf(COPIES).required() }),
})

export const printDay = endpoint<{ technicianId: number; day: string }, Blob>({
  method: 'GET',
  path: '/api/technicians/:technicianId/print/:day',
  says: 'The whole day of a technician as one PDF: the day first, then a page for each job. No money.',
  may: 'desk.read',
  answers: 'pdf',
  input: Joi.object<{ technicianId: number; day: string }, true>({ technicianId: field.id().required(), day: field.day().required() }),
})

export const printMyDay = endpoint<{ day?: string }, Blob>({
  method: 'GET',
  path: '/api/my-day/print',
  says: 'My day as one PDF, today where none is named.',
  may: 'field.work',
  answers: 'pdf',
  input: Joi.object<{ day?: string }, true>({ day: field.day() }),
})

/** Where the code on a printed sheet leads. */
export const findJob = endpoint<{ id: number }, { address: string }>({
  method: 'GET',
  path: '/api/jobs/:id',
  says: 'Where somebody finds this order: their own visit on Rounds, or its Sheet at the desk.',
  may: 'self.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
