import { endpoint } from '#contract/kit'

export interface DueRow {
  id: number
  plan: string
  asset: string | null
  dueOn: string
  orderId: number | null
  orderNumber: string | null
  state: 'done' | 'ordered' | 'ahead' | 'late'
}

export const listDues = endpoint<object, { rows: DueRow[] }>({
  method: 'GET',
  path: '/api/dues',
  says: 'Preventive work due around now.',
  may: 'desk.read',
})
