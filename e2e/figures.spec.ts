import { execFileSync } from 'node:child_process'
import { quantity } from '../src/core/units/format'
import { alder, copyOf, line, openJob } from './helpers'
import { expect, test } from './test'

test('the command line and the screen give equal figures', async ({ page, request }) => {
  const id = await copyOf(request, alder)
  const file = await (await request.get(`/api/jobs/${id}/export`)).text()
  const evaluation = JSON.parse(
    execFileSync('bin/spillway', ['evaluate', '-'], { input: file, encoding: 'utf8' }),
  )
  await openJob(page, id)
  expect(evaluation.balance).toHaveLength(7)
  for (const { id: lineId, need, have, unit, verdict } of evaluation.balance) {
    const shown = (value: number | null) => (value === null ? '–' : quantity(value, unit))
    await expect(line(page, lineId)).toContainText(`needs ${shown(need)}has ${shown(have)}`)
    await expect(line(page, lineId)).toContainText(verdict)
  }
  await page.goto(`/jobs/${id}/findings`)
  for (const finding of evaluation.findings)
    await expect(page.getByText(finding.sentence).first()).toBeVisible()
})
