import { defineConfig } from 'drizzle-kit'

export default defineConfig({ dialect: 'mysql', schema: './server/tables', out: './server/migrations' })
