import { endpoint } from '#contract/kit'

export interface Health {
  state: 'in order' | 'not in order'
  database: boolean
  migrations: { applied: number; expected: number }
}

export const readHealth = endpoint<object, Health>({ method: 'GET', path: '/api/health', says: 'Whether database and migrations are in order.', may: 'public' })
export const readOpenApi = endpoint<object, object>({ method: 'GET', path: '/api/openapi.json', says: 'This contract as OpenAPI 3.1.', may: 'public' })
