import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { evaluate } from '@/core/assess/evaluate'
import { loadsOverview } from '@/core/assess/loads-overview'
import { planTold } from '@/core/assess/plan-told'
import { calculate } from '@/core/calculator'
import { calculators } from '@/core/calculators'
import { answerOf } from '@/core/outage/answer'
import { deskFor, simulate } from '@/core/outage/chance'
import { planOf } from '@/core/outage/plan'
import { traceOf } from '@/core/outage/trace'
import { alderHollow, demoJobs } from '@/server/seeds/jobs'
import { run as commandLine } from './commands'

const folder = mkdtempSync(join(tmpdir(), 'spillway-cli-'))
const file = (name: string, content: string) => {
  const path = join(folder, name)
  writeFileSync(path, content)
  return path
}
const spawned = (args: string[], input = '') => {
  const done = spawnSync('node', ['dist/cli/main.js', ...args], { input, encoding: 'utf8', maxBuffer: 1e9 })
  return { status: done.status, out: done.stdout, err: done.stderr }
}
/** The same in this process, which need not read the whole program anew for each line. */
const run = async (args: string[], input = '') => {
  const said = { out: '', err: '' }
  const into = (key: 'out' | 'err') => (text: unknown) => {
    said[key] += String(text)
    return true
  }
  const spies = [
    jest.spyOn(process.stdout, 'write').mockImplementation(into('out')),
    jest.spyOn(process.stderr, 'write').mockImplementation(into('err')),
    jest.spyOn(process, 'stdin', 'get').mockReturnValue(Readable.from([Buffer.from(input)]) as never),
  ]
  try {
    return { status: await commandLine(args), ...said }
  } finally {
    for (const spy of spies) spy.mockRestore()
  }
}

test('lists, answers from a file and from standard input, prints schemas', () => {
  expect(spawned(['calc']).out).toMatch(/^runtime +How long will it last\?$/m)
  const text = JSON.stringify({ method: 'inrush', inrushA: 10, volts: 120 })
  const answer = { status: 0, err: '', out: `${JSON.stringify({ startA: 10, startVA: 1200 }, null, 2)}\n` }
  expect(spawned(['calc', 'start', file('start.json', text)])).toEqual(answer)
  expect(spawned(['calc', 'start', '-'], text)).toEqual(answer)
  expect(JSON.parse(spawned(['calc', 'runtime', '--schema']).out)).toMatchObject({
    input: { additionalProperties: false, required: ['capacityWh', 'idleW', 'efficiencyFraction', 'loadW'] },
    output: { type: 'object' },
  })
  expect(JSON.parse(spawned(['schema', 'job']).out)).toMatchObject({
    properties: { formatVersion: { const: 13 } },
  })
})

test.each(calculators.map(c => [c.name, c] as const))(
  '%s: the command line gives what the core gives',
  async (name, calculator) => {
    const lines = [calculator.example, { ...calculator.example, extra: 1 }]
      .map(l => JSON.stringify(l))
      .join('\n')
    const done = await run(['calc', name, '--lines', '-'], lines)
    const outcome = calculate(calculator, calculator.example)
    expect(done.status).toBe(2)
    const [answer, refused] = done.out
      .trim()
      .split('\n')
      .map(l => JSON.parse(l))
    expect(answer).toEqual(outcome.ok && JSON.parse(JSON.stringify(outcome.value.result)))
    expect(refused).toEqual({ error: ['extra: is not a key that belongs here'] })
  },
)

test('bad input: status 2, nothing on standard output, a line for each fault', async () => {
  const bad = await run(
    ['calc', 'legs', '-'],
    '{"arrangement": "tied", "circuits": [{"id": "a", "leg": "L1", "VA": -1, "W": 3}]}',
  )
  expect(bad).toEqual({
    status: 2,
    out: '',
    err: 'spillway: legs: circuits[0].VA: must not be negative\nspillway: legs: circuits[0].W: is not a key that belongs here\n',
  })
  expect((await run(['calc', 'runtime', '-'], '{"capacityWh": ')).err).toMatch(
    /^spillway: runtime: \$: is not JSON/,
  )
  expect((await run(['calc', 'runtim'])).err).toMatch(
    /^spillway: runtim: no such calculator; nearest: runtime/,
  )
  expect(await run(['calc', 'runtime', join(folder, 'none.json')])).toMatchObject({
    status: 2,
    err: expect.stringMatching(/cannot be read/),
  })
})

test('--lines answers every line in its place and ends with 2 when one was bad', async () => {
  const good = '{"method":"inrush","inrushA":1,"volts":120}'
  const done = await run([
    'calc',
    'start',
    '--lines',
    file('lines.jsonl', `${good}\nnonsense\n\n{"method":"inrush","volts":120}\n${good}`),
  ])
  const answers = done.out
    .trim()
    .split('\n')
    .map(l => JSON.parse(l))
  expect(done.status).toBe(2)
  expect(answers).toEqual([
    { startA: 1, startVA: 120 },
    { error: [expect.stringMatching(/^\$: is not JSON/)] },
    { error: [expect.stringMatching(/^\$: is not JSON/)] },
    { error: ['inrushA: is missing'] },
    { startA: 1, startVA: 120 },
  ])
})

test.each(demoJobs.map(d => [d.job.title, d.job]))(
  'evaluate prints what the core computes: %s',
  async (_, job) => {
    const done = await run(['evaluate', file('job.json', JSON.stringify(job))])
    expect(done.status).toBe(0)
    expect(JSON.parse(done.out)).toEqual(JSON.parse(JSON.stringify(evaluate(job))))
  },
)

test('simulate says what the screen says, the same for the same seed, and writes the course as CSV', async () => {
  const [, , , , kiosk] = demoJobs
  const path = file('kiosk.json', JSON.stringify(kiosk?.job))
  const csv = join(folder, 'course.csv')
  const one = await run(['simulate', path, '--seed', '3', '--draws', '200', '--csv', csv])
  expect(one).toMatchObject({ status: 0, err: '' })
  expect((await run(['simulate', path, '--seed', '3', '--draws', '200'])).out).toBe(one.out)
  const plan = kiosk && planOf(kiosk.job)
  if (!plan?.ok) throw new Error('no plan')
  const { chance } = simulate(plan.value, { seed: 3, exactly: 200 })
  const said = answerOf(plan.value, chance, traceOf(plan.value, deskFor(plan.value), 3))
  const got = JSON.parse(one.out)
  expect(got.sentence).toBe(said.headline)
  expect(got.lasts).toEqual(chance.lasts)
  expect(got.notAccountedForFraction).toBeLessThan(1e-9)
  expect(readFileSync(csv, 'utf8').split('\n')[0]).toMatch(/^hour,store_Wh/)
})

test('simulate and search refuse what they cannot take, each in words', async () => {
  const path = file('kiosk.json', JSON.stringify(demoJobs[4]?.job))
  const { source, ...none } = demoJobs[4]?.job ?? alderHollow
  for (const [args, told] of [
    [['simulate'], /give a job file/],
    [['simulate', path, '--draws', '0'], /--draws must be from 1 to 100,000, not 0/],
    [['simulate', path, '--seed', 'x'], /--seed must be a whole number, not x/],
    [['simulate', path, '--step', '0'], /stepS must be from 1 to 900 s/],
    [['simulate', path, '--step', '0.5'], /--step must be whole seconds/],
    [['simulate', file('none.json', JSON.stringify(none))], /source is not chosen yet/],
    [['simulate', join(folder, 'gone.json')], /gone\.json/],
    [['search', path, '--draws', '5'], /--draws must be from 10 to 5,000/],
    [['search', path, '--most-price', 'much'], /--most-price must be dollars, not much/],
    [['search', path, '--stock', file('stock.json', '{"rill-6": -1}')], /rill-6: must be 0 or more/],
    [['search', path, '--stock', file('no-stock.json', 'rill')], /is no JSON; write counts by id/],
  ] as const) {
    const done = await run([...args])
    expect(done).toMatchObject({ status: 2, out: '' })
    expect(done.err).toMatch(told)
  }
  expect(source).toBeDefined()
})

test('search finds what the core finds, and from stock alone only what is there', async () => {
  const path = file('kiosk.json', JSON.stringify(demoJobs[4]?.job))
  const found = JSON.parse((await run(['search', path, '--draws', '20'])).out)
  expect(found.sentence).toMatch(/designs looked at, .* the cheapest that lasts/)
  expect(found.front.length).toBeGreaterThan(1)
  const stock = file('stock.json', JSON.stringify({ 'brook-15': 1, 'sill-l14-30': 1, 'sluicegate-w': 1 }))
  const here = JSON.parse((await run(['search', path, '--draws', '20', '--stock', stock])).out)
  expect(here.front.every((f: { name: string }) => /^Brook 15/.test(f.name))).toBe(true)
  expect(here.dropped.some((d: { id: string }) => d.id === 'wish: stock')).toBe(true)
})

test('evaluate refuses a newer, a cut and a huge file, each in words', async () => {
  const text = JSON.stringify(alderHollow)
  const why = (content: string) => run(['evaluate', file('bad.json', content)])
  expect(await why(text.replace('"formatVersion":13', '"formatVersion":14'))).toMatchObject({
    status: 2,
    out: '',
    err: expect.stringMatching(/reads up to 13/),
  })
  expect((await why(text.slice(0, 999))).err).toMatch(/cut short/)
  expect((await why(' '.repeat(50_000_000))).err).toMatch(/larger than 2,000,000 bytes/)
})

test('import and export carry a job through the database unchanged', () => {
  const id = spawned(['import', file('alder.json', JSON.stringify(alderHollow))]).out.trim()
  expect(id).toMatch(/^[0-9a-f-]{36}$/)
  expect(JSON.parse(spawned(['export', id]).out)).toEqual(alderHollow)
  expect(spawned(['export', 'no-such-job'])).toMatchObject({
    status: 2,
    err: 'spillway: export: no job has the id no-such-job\n',
  })
})

test('loads gives what the screen of the loads shows; read tells a meter’s series apart and a utility’s table', async () => {
  const seen = loadsOverview(alderHollow)
  const said = JSON.parse((await run(['loads', '-'], JSON.stringify(alderHollow))).out)
  expect(said).toMatchObject({
    dailyWh: seen.dailyWh,
    band: seen.learn.dailyWh,
    schools: JSON.parse(JSON.stringify(seen.schools)),
  })
  const rows = Array.from({ length: 400 }, (_, i) => `${i * 60};${i % 40 < 10 ? '120,5' : '2,5'}`)
  const log = await run(['read', 'meter-log', '-'], ['elapsed s;W', ...rows].join('\n'))
  expect(JSON.parse(log.out)).toMatchObject({
    readings: 400,
    idleW: 2.5,
    dutyFraction: 0.25,
    levels: [{ W: 120.5 }],
  })
  expect(await run(['read', 'meter-log', '-'], 'a,b\nx,y\n')).toMatchObject({
    status: 2,
    out: '',
    err: expect.stringMatching(/read meter-log: -: .*no row with a time and a figure/),
  })
  const table = await run(
    ['read', 'interval-csv', '-'],
    'Start,kWh\n2026-01-05 00:00,0.4\n2026-01-05 01:00,0.5\n',
  )
  expect(JSON.parse(table.out).meters[0].intervals[1]).toEqual({
    start: '2026-01-05T01:00:00-05:00',
    minutes: 60,
    Wh: 500,
  })
  const there = ['--zone', 'America/Chicago']
  const west = await run(
    ['read', 'interval-csv', '-', ...there],
    'Start,kWh\n2026-07-05 00:00,0.4\n2026-07-05 01:00,1\n',
  )
  expect(JSON.parse(west.out).meters[0].intervals[0].start).toBe('2026-07-05T00:00:00-05:00')
  expect((await run(['read', 'interval-csv', '-', '--zone', 'Central'], 'x')).err).toMatch(
    /--zone: no clocks of Central/,
  )
  expect((await run(['read', 'gas-bill', '-'])).err).toMatch(
    /there are: green-button, interval-csv, meter-log/,
  )
})

test('wiring says which conductor goes where, whole or as a table; a file that is none is refused', async () => {
  const text = JSON.stringify(alderHollow)
  const { schedule, routes, open } = JSON.parse((await run(['wiring', '-'], text)).out)
  expect(routes.map((r: { id: string }) => r.id)).toContain('whip-switch')
  expect(open).toEqual(expect.any(Array))
  const table = (await run(['wiring', '-', '--csv', '-'], text)).out.trim().split('\r\n')
  expect(table[0]).toMatch(/^id,mark,function,from,to,sizeAwg,metal,colour,route,cutFt/)
  expect(table).toHaveLength(schedule.length + 1)
  const kept = join(folder, 'wires.csv')
  await run(['wiring', '-', '--csv', kept], text)
  expect(readFileSync(kept, 'utf8').trim().split('\r\n')).toEqual(table)
  expect((await run(['wiring'])).err).toMatch(/give a job file/)
  expect((await run(['wiring', '-'], '{')).err).toMatch(/wiring: /)
})

test('plan says what is going to be done, and what cannot be; one-line draws the house as found too', async () => {
  const text = JSON.stringify(alderHollow)
  const said = await run(['plan', '-'], text)
  expect(said.out.trim().split('\n')).toEqual(planTold(alderHollow).map(c => `${c.sign} ${c.text}`))
  const move = {
    kind: 'move',
    origin: 'person',
    places: [{ circuitId: 'c9', panelId: 'main', position: 11 }],
  }
  const claimed = { ...alderHollow, planned: [...alderHollow.planned, move] }
  expect((await run(['plan', '-'], JSON.stringify(claimed))).out).toMatch(
    /Move 9 .*\(cannot be: .*needs space 11/,
  )
  const device = alderHollow.hookup.switch?.name ?? ''
  const drawn = (house: string) => run(['one-line', file('house.json', text), '--house', house])
  expect((await drawn('planned')).out).toContain(device)
  expect((await drawn('found')).out).not.toContain(device)
  expect(await drawn('built')).toMatchObject({
    status: 2,
    err: expect.stringMatching(/found or planned, not built/),
  })
})

test('first-answer takes a call as a file and gives the figures of the screen; what cannot be taken names its field', async () => {
  const call = {
    wants: ['two refrigerators', { what: 'well pump', answer: 'deep' }],
    hours: 24,
    season: 'winter',
  }
  const said = JSON.parse((await run(['first-answer', '-'], JSON.stringify(call))).out)
  expect(said.wants.map((w: { loads: string[] }) => w.loads)).toEqual([
    ['Refrigerator, full size', 'Refrigerator, full size 2'],
    ['Well pump, 1 hp'],
  ])
  expect(said).toMatchObject({ hours: 24, v240: ['Well pump, 1 hp'], unknown: [] })
  expect(said.dailyWh.low < said.dailyWh.value && said.designs.length > 0).toBe(true)
  const why = async (c: object) => (await run(['first-answer', '-'], JSON.stringify(c))).err
  expect(await why({ wants: [], hours: 24 })).toMatch(/wants: must name what must live/)
  expect(await why({ ...call, hours: 0 })).toMatch(/hours: must be from 0\.5 to 720/)
  expect(await why({ ...call, hours: 2000 })).toMatch(/hours: must be from 0\.5 to 720/)
  expect(await why({ wants: [{ what: 'well pump', answer: 'pink' }], hours: 2 })).toMatch(
    /wants\.0\.answer: is no answer about Well pump: medium, deep/,
  )
  expect(await why({ wants: Array(41).fill('lights'), hours: 2 })).toMatch(/at most 40/)
  expect((await run(['first-answer'])).err).toMatch(/give a file/)
  expect(JSON.parse((await run(['first-answer', '--schema'])).out).properties.wants.type).toBe('array')
})

test('estimate prices a job by a book, names what has no price, and writes the paper', async () => {
  const text = JSON.stringify(alderHollow)
  const paper = join(folder, 'estimate.pdf')
  const done = await run(['estimate', '-', '--pdf', paper], text)
  expect(done.err).toMatch(/no price of .*: it stands in at its usual range/)
  const said = JSON.parse(done.out)
  const sum = said.lines.reduce((s: number, l: { cents: { low: number } }) => s + l.cents.low, 0)
  expect(said.options[0].subtotal.low).toBe(sum)
  expect(readFileSync(paper).subarray(0, 5).toString()).toBe('%PDF-')
  const terms = file('terms.json', JSON.stringify({ contingencyFraction: 9 }))
  expect((await run(['estimate', '-', '--terms', terms], text)).err).toMatch(
    /contingencyFraction: must be from 0 to 0\.5/,
  )
  expect((await run(['estimate'])).err).toMatch(/give a job file/)
})

test('work-order prints each step with what must be off, what stays live, what it rests on and its hold points', async () => {
  const said = JSON.parse((await run(['work-order', '-'], JSON.stringify(alderHollow))).out)
  expect(said.windows).toMatchObject([
    {
      open: [expect.stringMatching(/^the main of .*: off, with a breaker lock/)],
      staysLive: [expect.stringMatching(/line side/)],
    },
  ])
  const prove = said.tasks.find((t: { id: string }) => t.id === 'prove:w1')
  expect(prove.holds[0].readings).toContain('L1–ground')
  expect(prove.restsOn.every((n: number) => n < prove.step)).toBe(true)
  expect(said.offMinutes).toBeLessThan(said.offUnpreparedMinutes)
  expect((await run(['work-order'])).err).toMatch(/give a job file/)
})

test('isolation says what is opened so that a place is dead, and what the main alone would leave', async () => {
  const said = JSON.parse((await run(['isolation', '-'], JSON.stringify(alderHollow))).out)
  const bus = said.places.find((p: { place: string }) => /^the bus of/.test(p.place))
  expect(bus.open).toMatchObject([{ setting: 'off', keepsAway: ['the utility'] }])
  expect(bus.staysLive.join()).toMatch(/line side/)
  expect(bus.withMainsOff).toEqual({ live: [], couldBecome: [] })
  const lead = said.changes.find((c: { change: string }) => /to position 1/.test(c.change))
  expect(lead.open.map((o: { handle: string }) => o.handle)).toContain('the cord at the inlet')
  expect(lead.withMainsOff).toEqual({ live: [], couldBecome: [expect.any(String)] })
  expect((await run(['isolation'])).err).toMatch(/give a job file/)
})

test('parts lists what to buy, by a price book where one is given; its bad rows are told and leave the others', async () => {
  const text = JSON.stringify(alderHollow)
  const bare = JSON.parse((await run(['parts', '-'], text)).out)
  expect([bare.knownUsd, bare.work.hours > 4]).toEqual([expect.any(Number), true])
  const book = join(folder, 'book.csv')
  const rows = ['twist-small,100,14,2026-01-01', 'twist-large,50,=1+1,2026-01-01']
  writeFileSync(book, ['part,quantity,price,date', ...rows].join('\n'))
  const priced = await run(['parts', '-', book], text)
  expect(priced.err).toMatch(/row 3, price: holds a formula/)
  const line = JSON.parse(priced.out).lines.find((l: { key: string }) => l.key === 'twist-small')
  expect(line).toMatchObject({ toOrder: 5, priceUsd: 14, bought: [{ quantity: 100, count: 1 }] })
  const table = (await run(['parts', '-', book, '--csv', '-'], text)).out
  expect(table).toMatch(/^part,name,unit,needed,from stock,to order,put-up.*\r\n/)
  expect(table).toMatch(/twist-small,"?twist-on connector, small"?,each,5,0,5,100,1,14,14/)
  expect((await run(['parts'])).err).toMatch(/give a job file/)
  writeFileSync(book, 'x,y\n1,2')
  expect((await run(['parts', '-', book], text)).err).toMatch(/part, quantity, price, date: is missing/)
})

test('tests lists what has to be proven with what is expected and why; readings judges a table of them, and ends with 1 where one failed', async () => {
  const text = JSON.stringify(alderHollow)
  const said = JSON.parse((await run(['tests', '-'], text)).out)
  const utility = said.tests.find((t: { id: string }) => t.id === 'utility:c5')
  expect(utility.reads[0]).toMatchObject({
    expected: '114 V to 126 V',
    working: { references: ['ANSI C84.1'] },
  })
  expect(said.matrix.find((r: { circuitId: string }) => r.circuitId === 'c5').sourceW).toBe(118)
  const job = file('proven.json', text)
  const table = (rows: string) => run(['readings', job, file('readings.csv', `test,key,value\n${rows}`)])
  expect(JSON.parse((await table('ground:c5,ohms,"0,4"\n')).out)).toMatchObject([
    { test: 'ground:c5', verdict: 'passed' },
  ])
  expect(await table('ground:c5,ohms,OL\n')).toMatchObject({
    status: 1,
    out: expect.stringMatching(/"verdict": "failed"/),
  })
  expect(await table('ground:c5,ohms,-1\n')).toMatchObject({
    status: 2,
    out: '',
    err: expect.stringMatching(/line 2: ground:c5, ohms: must not be negative/),
  })
  expect((await run(['readings', job])).err).toMatch(/give a file of readings/)
  expect((await run(['tests'])).err).toMatch(/give a job file/)
})

test('the card is said line by line, one way or both, in either language; the pack is written with the job inside', async () => {
  const alder = file('alder-card.json', JSON.stringify(alderHollow))
  const to = await run(['card', alder, '--to', 'battery'])
  expect(to).toMatchObject({ status: 0, err: '' })
  expect(to.out).toMatch(/^TO THE BATTERY\n1\. Look outside/)
  expect(to.out).not.toMatch(/BACK TO/)
  const back = await run(['card', alder, '--to', 'utility', '--language', 'es'])
  expect(back.out).toMatch(/^VOLVER A LA RED ELÉCTRICA/)
  expect((await run(['card', alder, '--to', 'roof'])).err).toMatch(/--to takes battery or utility, not roof/)
  expect((await run(['card', alder, '--language', 'fr'])).err).toMatch(/en or es, not fr/)
  const { source: _, ...bare } = alderHollow
  const none = await run(['card', file('bare.json', JSON.stringify(bare))])
  expect(none).toMatchObject({ status: 2, err: expect.stringMatching(/source: must be chosen before/) })

  expect((await run(['handover', alder])).err).toMatch(/give --pdf FILE/)
  const pdf = join(folder, 'pack.pdf')
  const pack = await run(['handover', alder, '--pdf', pdf])
  expect(JSON.parse(pack.out)).toMatchObject({ title: 'Alder Hollow day-care', photographs: 6 })
  const bytes = readFileSync(pdf).toString('latin1')
  expect(bytes).toMatch(/^%PDF-1[\s\S]*job\.json/)
})
