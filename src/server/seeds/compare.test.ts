import { compareMethods } from '@/core/assess/compare-methods'
import { usualLabour } from '@/core/hookup/labour'
import { catalogue } from './catalogue'
import { alderHollow, demoJobs } from './jobs'

/** The methods on each demo job, best first, as read by an electrician: carried of asked, hours, dollars, stops and fixes. */
const golden: Record<string, string[]> = {
  'Alder Hollow day-care': [
    'multi-circuit-switch (chosen): 6 of 6, 0 of 0 at 240 V, 4.5-7 h, $420-510, 1 stop, 0 fix',
    'sub-panel-interlock: 6 of 6, 0 of 0 at 240 V, 8.25-12.75 h, $490-812, 1 stop, 0 fix',
    'interlocked-inlet: 6 of 6, 0 of 0 at 240 V, 3-5 h, $292-422, 1 stop, 1 fix',
    'managed-panel: 6 of 6, 0 of 0 at 240 V, 9.8-17 h, $3050-3200, 1 stop, 0 fix',
    'cord-and-plug: 1 of 6, 0 of 0 at 240 V, 0.75-1.5 h, $25-70, 0 stop, 0 fix',
    'extension-cords: 5 of 6, 0 of 0 at 240 V, 0-0.5 h, $40-160, 1 stop, 0 fix',
    'single-circuit-switch: 1 of 6, 0 of 0 at 240 V, 1.5-3 h, $265-365, 2 stop, 1 fix',
    'critical-subpanel: 6 of 6, 0 of 0 at 240 V, 10.25-17.75 h, $472-944, 1 stop, 0 fix',
  ],
  'Saltmarsh Lane': [
    'sub-panel-interlock: 7 of 7, 2 of 2 at 240 V, 8.7-13.5 h, $502-836, 1 stop, 0 fix',
    'interlocked-inlet (chosen): 7 of 7, 2 of 2 at 240 V, 3-5 h, $292-422, 1 stop, 1 fix',
    'multi-circuit-switch: 7 of 7, 2 of 2 at 240 V, 4.8-7.5 h, $550-640, 1 stop, 2 fix',
    'managed-panel: 7 of 7, 2 of 2 at 240 V, 10.16-17.6 h, $3050-3200, 1 stop, 1 fix',
    'extension-cords: 5 of 7, 0 of 2 at 240 V, 0-0.5 h, $40-160, 1 stop, 0 fix',
    'cord-and-plug: 1 of 7, 0 of 2 at 240 V, 0.75-1.5 h, $25-70, 0 stop, 0 fix',
    'critical-subpanel: 7 of 7, 2 of 2 at 240 V, 10.7-18.5 h, $484-968, 1 stop, 0 fix',
    'single-circuit-switch: 1 of 7, 0 of 2 at 240 V, 1.5-3 h, $265-365, 4 stop, 4 fix',
  ],
  'Quarry Ridge studio': [
    'critical-subpanel (chosen): 8 of 8, 0 of 0 at 240 V, 11.15-19.25 h, $496-992, 1 stop, 1 fix',
    'managed-panel: 8 of 8, 0 of 0 at 240 V, 10.52-18.2 h, $3050-3200, 2 stop, 0 fix',
    'interlocked-inlet: 8 of 8, 0 of 0 at 240 V, 3-5 h, $292-422, 1 stop, 1 fix',
    'sub-panel-interlock: 8 of 8, 0 of 0 at 240 V, 9.15-14.25 h, $514-860, 1 stop, 1 fix',
    'multi-circuit-switch: 8 of 8, 0 of 0 at 240 V, 5.1-8 h, $550-640, 2 stop, 1 fix',
    'extension-cords: 8 of 8, 0 of 0 at 240 V, 0-0.5 h, $40-160, 0 stop, 0 fix',
    'cord-and-plug: 1 of 8, 0 of 0 at 240 V, 0.75-1.5 h, $25-70, 0 stop, 0 fix',
    'single-circuit-switch: 1 of 8, 0 of 0 at 240 V, 1.5-3 h, $265-365, 3 stop, 2 fix',
  ],
  'Mill Street upstairs': [
    'multi-circuit-switch: 3 of 5, 0 of 1 at 240 V, 3.6-5.5 h, $420-510, 1 stop, 1 fix',
    'managed-panel: 4 of 5, 0 of 1 at 240 V, 9.08-15.8 h, $3050-3200, 1 stop, 1 fix',
    'sub-panel-interlock (chosen): 4 of 5, 0 of 1 at 240 V, 7.35-11.25 h, $452-762, 1 stop, 2 fix',
    'cord-and-plug: 1 of 5, 0 of 1 at 240 V, 0.75-1.5 h, $25-70, 1 stop, 1 fix',
    'interlocked-inlet: 1 of 5, 0 of 1 at 240 V, 3-5 h, $280-410, 1 stop, 2 fix',
    'single-circuit-switch: 1 of 5, 0 of 1 at 240 V, 1.5-3 h, $265-365, 3 stop, 2 fix',
    'extension-cords: 3 of 5, 0 of 1 at 240 V, 0-0.5 h, $40-160, 2 stop, 1 fix',
    'critical-subpanel: 4 of 5, 0 of 1 at 240 V, 9.35-16.25 h, $460-920, 1 stop, 2 fix',
  ],
  'Fernbrook library kiosk': [
    'multi-circuit-switch: 2 of 2, 0 of 0 at 240 V, 3.3-5 h, $350-440, 0 stop, 1 fix',
    'sub-panel-interlock: 2 of 2, 0 of 0 at 240 V, 6.45-9.75 h, $442-716, 0 stop, 1 fix',
    'cord-and-plug (chosen): 1 of 2, 0 of 0 at 240 V, 0.75-1.5 h, $25-70, 1 stop, 0 fix',
    'interlocked-inlet: 1 of 2, 0 of 0 at 240 V, 3-5 h, $218-348, 0 stop, 2 fix',
    'single-circuit-switch: 1 of 2, 0 of 0 at 240 V, 1.5-3 h, $265-365, 1 stop, 2 fix',
    'managed-panel: 2 of 2, 0 of 0 at 240 V, 8.36-14.6 h, $3050-3200, 0 stop, 1 fix',
    'extension-cords: 1 of 2, 0 of 0 at 240 V, 0-0.5 h, $40-160, 2 stop, 0 fix',
    'critical-subpanel: 2 of 2, 0 of 0 at 240 V, 8.45-14.75 h, $424-848, 0 stop, 1 fix',
  ],
  'Osprey Point boathouse': [
    'multi-circuit-switch: 2 of 2, 1 of 1 at 240 V, 3.3-5 h, $350-440, 0 stop, 1 fix',
    'interlocked-inlet (chosen): 2 of 2, 1 of 1 at 240 V, 3-5 h, $280-410, 0 stop, 1 fix',
    'sub-panel-interlock: 2 of 2, 1 of 1 at 240 V, 6.45-9.75 h, $442-716, 0 stop, 1 fix',
    'managed-panel: 2 of 2, 1 of 1 at 240 V, 8.36-14.6 h, $3050-3200, 0 stop, 1 fix',
    'cord-and-plug: 1 of 2, 0 of 1 at 240 V, 0.75-1.5 h, $25-70, 0 stop, 0 fix',
    'single-circuit-switch: 1 of 2, 0 of 1 at 240 V, 1.5-3 h, $265-365, 2 stop, 2 fix',
    'extension-cords: 1 of 2, 0 of 1 at 240 V, 0-0.5 h, $40-160, 1 stop, 0 fix',
    'critical-subpanel: 2 of 2, 1 of 1 at 240 V, 8.45-14.75 h, $424-848, 0 stop, 1 fix',
  ],
}

const compared = new Map(demoJobs.map(d => [d.job, compareMethods(d.job, catalogue)]))

describe.each(demoJobs.map(d => [d.job.title, d.job] as const))('%s', (title, job) => {
  const methods = compared.get(job) ?? []

  test('methods in their order, with what they carry, cost and leave to do', () => {
    const figure = (n: number) => String(Number(n.toFixed(2)))
    expect(
      methods.map(m => {
        const { served, unserved, labourHours: h, price, findings } = m
        const dollars = price ? `$${price.least}-${price.most}` : 'no price'
        return `${m.method}${m.chosen ? ' (chosen)' : ''}: ${served.length} of ${served.length + unserved.length}, ${m.serves240} of ${m.of240} at 240 V, ${figure(h.least)}-${figure(h.most)} h, ${dollars}, ${findings.stop} stop, ${findings.fix} fix`
      }),
    ).toEqual(golden[title])
  })

  test('one is recommended, with its reason; every other has a sentence against it', () => {
    expect(methods.map(m => m.recommended)).toEqual(methods.map((_, n) => n === 0))
    expect(methods[0]?.reason).toMatch(/^Carries \d|^Carries all/)
    for (const m of methods) expect(m.reason).toMatch(/^[A-Z0-9].*\.$/)
  })

  test('no circuit is carried and left dark at once, and none is forgotten', () => {
    // a method that moves breakers names them by their new places
    const label = (name: string) => name.replace(/^(?:[A-Z] )?[\d·AB]+ /, '')
    const picked = job.panels.flatMap(p => p.circuits).filter(c => c.picked && c.purpose === 'loads')
    for (const { served, unserved } of methods)
      expect([...served, ...unserved].map(label).sort()).toEqual(picked.map(c => c.label).sort())
  })

  test('ranges run upwards; nothing is dearer than its own most', () => {
    for (const { labourHours, price, seconds } of methods)
      for (const range of [labourHours, seconds, ...(price ? [price] : [])])
        expect(range.most).toBeGreaterThanOrEqual(range.least)
  })
})

const by = (title: string, method: string) => {
  const job = demoJobs.find(d => d.job.title === title)?.job
  const found = job && compared.get(job)?.find(m => m.method === method)
  if (!found) throw new Error(`no ${method} on ${title}`)
  return found
}

test.each([
  ['Alder Hollow day-care', 'critical-subpanel', /needs an inverter with its own transfer/],
  ['Alder Hollow day-care', 'extension-cords', /leaves 2 Boiler and circulators dark, which must run/],
  [
    'Quarry Ridge studio',
    'interlocked-inlet',
    /transfers by itself: this would put a second transfer behind/,
  ],
  ['Mill Street upstairs', 'interlocked-inlet', /leaves 7 Furnace dark/],
  ['Mill Street upstairs', 'sub-panel-interlock', /Flat panel is full/],
  ['Fernbrook library kiosk', 'managed-panel', /\$900 were named as the most/],
])('%s: what speaks against %s is the first thing an electrician would say', (title, method, said) => {
  expect(by(title, method).reason).toMatch(said)
})

test('without a catalogue devices are not known, and nothing that needs one is priced', () => {
  const bare = { ...alderHollow, hookup: { method: 'undecided' as const, bondingPlug: false } }
  for (const m of compareMethods(bare, [])) {
    const needsNone = ['cord-and-plug', 'extension-cords', 'critical-subpanel'].includes(m.method)
    expect(m.devices).toEqual(needsNone ? [] : ['not known: no catalogue'])
    expect(m.price === null).toBe(!needsNone)
  }
})

test('a firm that works faster has fewer hours, and the same parts', () => {
  const usual = compared.get(alderHollow) ?? []
  const half = {
    tasks: usualLabour.tasks.map(t => ({
      ...t,
      least: t.least / 2,
      most: t.most / 2,
      eachMost: t.eachMost / 2,
    })),
  }
  for (const m of compareMethods(alderHollow, catalogue, half)) {
    const before = usual.find(u => u.method === m.method)
    expect(m.labourHours.most).toBeCloseTo((before?.labourHours.most ?? 0) / 2, 9)
    expect(m.price).toEqual(before?.price)
  }
})
