import type { Worked } from './calculator'
import { deference } from './deference'
import { shown } from './units/format'
import type { WorkingValue } from './working'

const line = (v: WorkingValue) =>
  `  ${v.label}: ${shown(v.value, v.unit)}${v.arithmetic ? ` = ${v.arithmetic}` : ''}`

/** A calculation as plain text for a message or a note: question, answer, inputs, steps, articles, link. */
export function answerText(
  question: string,
  { answer, findings, next, working }: Omit<Worked<unknown>, 'result'>,
  link: string,
): string {
  return [
    question,
    answer,
    ...findings,
    ...(next ? [`What to do next: ${next}`] : []),
    '',
    'Given:',
    ...working.inputs.map(line),
    'Worked out:',
    ...working.steps.map(line),
    ...(working.references.length ? [`From: ${working.references.join('; ')}`] : []),
    ...(working.notCovered.length ? [`Not covered: ${working.notCovered.join(' ')}`] : []),
    deference,
    ...(link ? [link] : []),
  ].join('\n')
}
