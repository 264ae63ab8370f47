import type { Right } from '@/core/firm/roles'

/**
 * What a route takes: a right of the role; `signed in`: whoever has signed in, with a firm or without; `link`: whoever holds the
 * secret of a link; `anybody`.
 */
export type Admission = Right | 'signed in' | 'link' | 'anybody'

/**
 * Every door of the house and what it takes. A door without a line here stays shut, and route-rights.test.ts names it.
 */
export const routeRights: Readonly<Record<string, Admission>> = {
  // who somebody is
  // by a web process of itself alone, before it listens
  'GET /warm': 'anybody',
  'GET /sign-in': 'anybody',
  'GET /sign-up': 'anybody',
  'GET /recover': 'anybody',
  'GET /new-password': 'anybody',
  'GET /join/[token]': 'link',
  'GET /firms': 'signed in',
  'GET /account': 'signed in',
  'GET /refused': 'signed in',
  'GET /mail': 'anybody',
  'GET /api/auth/[...all]': 'anybody',
  'POST /api/auth/[...all]': 'anybody',
  'GET /api/session': 'signed in',
  'POST /api/session': 'signed in',
  'POST /api/firms': 'signed in',
  'POST /api/firms/import': 'signed in',
  'POST /api/firms/back': 'signed in',
  'POST /api/account/delete': 'signed in',
  'POST /api/join/[token]': 'signed in',

  // the firm
  'GET /people': 'read',
  'POST /api/people': 'people',
  'POST /api/people/[personId]': 'people',
  'POST /api/people/invitations/[id]': 'people',
  'POST /api/leave': 'read',
  'GET /firm': 'read',
  'POST /api/firm': 'firm',
  'GET /api/firm/archive': 'firm',
  'POST /api/firm/delete': 'firm',
  'GET /api/firm/logo': 'read',
  'POST /api/firm/logo': 'firm',
  'GET /record': 'people',
  'GET /api/record': 'people',

  // jobs
  'GET /jobs': 'read',
  'GET /due': 'read',
  'GET /api/jobs': 'read',
  'POST /api/jobs': 'design',
  'POST /api/jobs/import': 'design',
  'GET /jobs/[id]': 'read',
  'GET /jobs/[id]/ask': 'read',
  'GET /jobs/[id]/booklet': 'read',
  'GET /jobs/[id]/calculations': 'read',
  'GET /jobs/[id]/estimate': 'money',
  'GET /jobs/[id]/field': 'read',
  'GET /jobs/[id]/findings': 'read',
  'GET /jobs/[id]/first': 'read',
  'GET /jobs/[id]/hand-over': 'read',
  'GET /jobs/[id]/history': 'read',
  'GET /jobs/[id]/hook-up': 'read',
  'GET /jobs/[id]/labels': 'read',
  'GET /jobs/[id]/loads': 'read',
  'GET /jobs/[id]/loads/utility': 'read',
  'GET /jobs/[id]/notices': 'read',
  'GET /jobs/[id]/one-line': 'read',
  'GET /jobs/[id]/outage': 'read',
  'GET /jobs/[id]/panel': 'read',
  'GET /jobs/[id]/parts': 'read',
  'GET /jobs/[id]/photos': 'read',
  'GET /jobs/[id]/plan': 'read',
  'GET /jobs/[id]/print': 'read',
  'GET /jobs/[id]/prove': 'read',
  'GET /jobs/[id]/record': 'read',
  'GET /jobs/[id]/revision/[revision]': 'read',
  'GET /jobs/[id]/source': 'read',
  'GET /jobs/[id]/tests': 'read',
  'GET /jobs/[id]/trace': 'read',
  'GET /jobs/[id]/visit/[visit]': 'read',
  'GET /jobs/[id]/wire': 'read',
  'GET /jobs/[id]/work': 'read',
  'GET /api/jobs/[id]': 'read',
  'POST /api/jobs/[id]/archive': 'design',
  'GET /api/jobs/deleted': 'firm',
  'POST /api/jobs/[id]/delete': 'firm',
  'GET /api/jobs/[id]/calendar': 'read',
  'GET /api/jobs/[id]/card': 'read',
  // each change says itself what it takes (core/job/operations/rights.ts)
  'POST /api/jobs/[id]/changes': 'field',
  'GET /api/jobs/[id]/directory': 'read',
  'GET /api/jobs/[id]/drawing': 'read',
  'POST /api/jobs/[id]/duplicate': 'design',
  'GET /api/jobs/[id]/estimate': 'money',
  'POST /api/jobs/[id]/estimate': 'money',
  'GET /api/jobs/[id]/estimate/pdf': 'money',
  'GET /api/jobs/[id]/export': 'read',
  'GET /api/jobs/[id]/history': 'read',
  'POST /api/jobs/[id]/history/[revision]': 'design',
  'GET /api/jobs/[id]/house': 'read',
  'POST /api/jobs/[id]/house': 'field',
  'GET /api/jobs/[id]/interval-data': 'read',
  'POST /api/jobs/[id]/interval-data': 'field',
  'POST /api/jobs/[id]/interval-data/fetch': 'field',
  'GET /api/jobs/[id]/links': 'read',
  'POST /api/jobs/[id]/links': 'field',
  'GET /api/jobs/[id]/live': 'read',
  'GET /api/jobs/[id]/logs': 'read',
  'POST /api/jobs/[id]/logs': 'field',
  'GET /api/jobs/[id]/one-line': 'read',
  'GET /api/jobs/[id]/order': 'read',
  'GET /api/jobs/[id]/packs': 'read',
  'POST /api/jobs/[id]/packs': 'field',
  'GET /api/jobs/[id]/packs/[n]': 'read',
  'POST /api/jobs/[id]/packs/[n]': 'field',
  'GET /api/jobs/[id]/parts': 'read',
  'POST /api/jobs/[id]/parts': 'field',
  'POST /api/jobs/[id]/photos': 'field',
  'GET /api/jobs/[id]/search': 'read',
  'POST /api/jobs/[id]/search': 'design',
  'GET /api/jobs/[id]/simulated-meter': 'read',
  'POST /api/jobs/[id]/template': 'design',
  'GET /api/jobs/[id]/wiring': 'read',
  'GET /api/photos/[photoId]': 'read',
  'GET /api/files/[fileId]': 'read',

  // what the firm keeps beside its jobs
  'GET /equipment': 'read',
  'GET /loads': 'read',
  'GET /checks': 'read',
  'GET /bench/[[...name]]': 'read',
  'GET /api/equipment': 'read',
  'POST /api/equipment': 'design',
  'GET /api/equipment/export': 'read',
  'GET /api/loads': 'read',
  'POST /api/loads': 'design',
  'POST /api/labour': 'design',
  'GET /api/minutes': 'read',
  'GET /api/prices': 'money',
  'POST /api/prices': 'money',
  'GET /api/terms': 'money',
  'POST /api/terms': 'money',
  'GET /api/solver': 'read',

  // whoever holds a link
  'GET /for/[token]': 'link',
  'GET /api/for/[token]': 'link',
  'POST /api/for/[token]': 'link',
  'POST /api/for/[token]/file': 'link',
  'POST /api/for/[token]/photo': 'link',
  'GET /api/for/[token]/photos/[photoId]': 'link',
  'GET /offer/[token]': 'link',
  'POST /api/offer/[token]': 'link',
  'GET /api/offer/[token]/pdf': 'link',
  'GET /house/[token]': 'link',
  'POST /api/house/[token]': 'link',
  'GET /api/house/[token]/card': 'link',
  'GET /api/house/[token]/pack': 'link',
  // a stand-in of another’s service, with its own token
  'GET /api/simulators/utility/espi/1_1/resource/Batch/Subscription/[id]': 'anybody',
}

interface Line {
  method: string
  form: RegExp
  admission: Admission
}
const formOf = (pattern: string) =>
  new RegExp(
    `^${pattern
      .replace(/\/\[\[\.\.\.\w+\]\]/g, '(?:/.*)?')
      .replace(/\[\.\.\.\w+\]/g, '.+')
      .replace(/\[\w+\]/g, '[^/]+')}/?$`,
  )
const vague = (pattern: string) => pattern.split('[').length
const lines: Line[] = Object.entries(routeRights)
  // a door that is named goes before one that stands for many
  .sort(([a], [b]) => vague(a) - vague(b))
  .map(([key, admission]) => {
    const [method = '', pattern = ''] = key.split(' ')
    return { method, form: formOf(pattern), admission }
  })

/** What a door takes; undefined for one that stands in no line. */
export const admissionOf = (method: string, path: string): Admission | undefined =>
  lines.find(l => l.method === (method === 'HEAD' ? 'GET' : method) && l.form.test(path))?.admission
