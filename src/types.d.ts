declare module '*.css'
declare module '@fontsource-variable/atkinson-hyperlegible-next'
declare module 'knex/lib/dialects/postgres/index.js' {
  import type { Knex } from 'knex'
  export default class extends Knex.Client {}
}
