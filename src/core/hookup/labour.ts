import * as z from 'zod'
import { labelled } from '../field'
import { within } from '../quantity'
import { methodIds, methodOf } from './method'

const hours = (title: string) => labelled(within(0, 400, 'h'), title, 'h')

/** An installer's hours for one way of connecting, and for each circuit beyond the first. */
export const taskHoursSchema = z
  .strictObject({
    method: labelled(z.enum(methodIds), 'Way of connecting', 'text', {
      names: Object.fromEntries(methodIds.map(id => [id, methodOf(id).short])),
    }),
    least: hours('At least'),
    most: hours('At most'),
    eachMost: hours('Each circuit more'),
  })
  .check(({ value, issues }) => {
    if (value.least > value.most)
      issues.push({
        code: 'custom',
        path: ['most'],
        message: `is ${value.most} h, below the ${value.least} h at least`,
        input: value,
      })
  })

/** The firm's own figures, by task; what is missing is ours. */
export const labourSchema = z.strictObject({
  tasks: labelled(
    z
      .array(taskHoursSchema)
      .max(methodIds.length, `must hold at most ${methodIds.length} tasks`)
      .check(({ value, issues }) => {
        value.forEach((task, n) => {
          if (value.findIndex(t => t.method === task.method) < n)
            issues.push({ code: 'custom', path: [n, 'method'], message: 'stands there twice', input: value })
        })
      }),
    'Hours',
    'text',
    { row: 'Task' },
  ),
})
export type Labour = z.infer<typeof labourSchema>

/** Ours, as the start of a firm's own. */
export const usualLabour: Labour = {
  tasks: methodIds.flatMap(method => {
    const { hours } = methodOf(method)
    return hours ? [{ method, ...hours }] : []
  }),
}
