/**
 * What a firm’s archive is made of: of each table its rows as JSON, a line each, in the order in which they can be put back; what
 * is large or worth a look by itself stands in a file of its own. Whoever adds a table of a firm adds its line:
 * archive.test.ts fails without it.
 */
export interface Part {
  table: string
  /** the order of rows, and with it of lines */
  order: readonly string[]
  /** columns that stay behind: made anew by the database, or of this installation alone */
  leave?: readonly string[]
  /** columns whose content is a file of its own, by its path */
  files?: Readonly<Record<string, { path: (row: Row) => string; kind: 'bytes' | 'document' }>>
}
export type Row = Record<string, unknown>

const id = (row: Row) => String(row.id)

export const parts: readonly Part[] = [
  {
    table: 'firm',
    order: ['id'],
    leave: ['deleted_at'],
    files: { logo: { path: () => 'logo.png', kind: 'bytes' } },
  },
  { table: 'person', order: ['id'], leave: ['login_id'] },
  { table: 'equipment', order: ['id', 'version'] },
  { table: 'equipment_stock', order: ['key'] },
  { table: 'typical_load', order: ['id'] },
  { table: 'part_price', order: ['part', 'quantity', 'supplier'] },
  {
    table: 'job',
    order: ['id'],
    files: { document: { path: row => `jobs/${id(row)}.spillway.json`, kind: 'document' } },
  },
  { table: 'job_change', order: ['job_id', 'revision'] },
  { table: 'job_snapshot', order: ['job_id', 'revision'] },
  {
    table: 'photo',
    order: ['id'],
    leave: ['bytes', 'picture_sha256', 'picture_bytes'],
    files: {
      picture: { path: row => `photographs/${id(row)}.jpg`, kind: 'bytes' },
      thumbnail: { path: row => `photographs/${id(row)}.small.jpg`, kind: 'bytes' },
    },
  },
  {
    table: 'job_file',
    order: ['id'],
    leave: ['bytes'],
    files: { content: { path: row => `files/${id(row)}.gz`, kind: 'bytes' } },
  },
  {
    table: 'interval_series',
    order: ['id'],
    leave: ['bytes'],
    files: { content: { path: row => `intervals/${id(row)}.gz`, kind: 'bytes' } },
  },
  { table: 'customer_link', order: ['id'] },
  { table: 'part_reserved', order: ['job_id', 'key'] },
  { table: 'estimate', order: ['id'] },
  {
    table: 'estimate_version',
    order: ['id'],
    files: { pdf: { path: row => `estimates/${id(row)}.pdf`, kind: 'bytes' } },
  },
  { table: 'estimate_question', order: ['id'] },
  { table: 'house_word', order: ['id'] },
  { table: 'pack', order: ['id'], files: { pdf: { path: row => `packs/${id(row)}.pdf`, kind: 'bytes' } } },
  { table: 'record_entry', order: ['id'], leave: ['id'] },
]

/** Tables of a firm that no archive holds, and why. */
export const notArchived: Readonly<Record<string, string>> = {
  design_search: 'searches are made anew',
  design_search_task: 'searches are made anew',
  picture_gone: 'pictures that no row names any more',
  invitation: 'whoever waits is invited anew',
}

export const rowsPath = (table: string) => `rows/${table}.jsonl`

/** The only names that an archive may hold: nothing that climbs, nothing that is not ours. */
export const knownPath =
  /^(spillway\.json|logo\.png|rows\/[a-z_]+\.jsonl|(jobs|photographs|files|intervals|estimates|packs)\/[0-9a-f-]{36}\.(spillway\.json|jpg|small\.jpg|gz|pdf))$/
