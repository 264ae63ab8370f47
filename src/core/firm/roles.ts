import * as z from 'zod'

/** What somebody is in a firm. */
export const roles = ['owner', 'designer', 'technician', 'reader'] as const
export const roleSchema = z.enum(roles)
export type Role = z.infer<typeof roleSchema>

/** What there is to be allowed: each thing that is done on the house asks for one of these. */
export const rights = ['read', 'field', 'design', 'money', 'people', 'firm'] as const
export type Right = (typeof rights)[number]

/** Each right in words: what one who has it may do. */
export const rightWords: Readonly<Record<Right, string>> = {
  read: 'see jobs, papers and equipment',
  field: 'survey, trace, photograph, measure, work through the order, test and hand over',
  design: 'open jobs, plan source, hook-up and wiring, keep the catalogue',
  money: 'see and set prices, estimates and terms',
  people: 'invite people, give roles, remove people, read the record',
  firm: 'change the firm’s settings, take its data out, delete it',
}

/** The table of what each role may do: the one place where it stands. */
export const roleRights: Readonly<Record<Role, readonly Right[]>> = {
  owner: ['read', 'field', 'design', 'money', 'people', 'firm'],
  designer: ['read', 'field', 'design', 'money'],
  technician: ['read', 'field'],
  reader: ['read'],
}

/** Each role by its name, with what it is for. */
export const roleWords: Readonly<Record<Role, { name: string; about: string }>> = {
  owner: { name: 'Owner', about: 'answers for the firm: everything, people and settings too' },
  designer: { name: 'Designer', about: 'plans and prices jobs' },
  technician: { name: 'Technician', about: 'works at the house: survey, order, tests, hand-over' },
  reader: { name: 'Reader', about: 'looks on and changes nothing' },
}

/** Whether a role carries a right; what is no role carries none. */
export const may = (role: string, right: Right): boolean => {
  const read = roleSchema.safeParse(role)
  return read.success && roleRights[read.data].includes(right)
}

/** Why something is refused, and who could do it. */
export function refusal(role: string, right: Right): string {
  const read = roleSchema.safeParse(role)
  const who = roles
    .filter(r => roleRights[r].includes(right))
    .map(r => roleWords[r].name.toLowerCase())
    .join(' or ')
  const as = read.success ? roleWords[read.data].name.toLowerCase() : 'somebody without a role'
  return `You are here as ${as}. To ${rightWords[right]} takes ${/^[aeiou]/.test(who) ? 'an' : 'a'} ${who}: ask one of your firm.`
}
