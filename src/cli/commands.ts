import { parseArgs } from 'node:util'
import { calc } from './calc'
import { complain } from './io'

const usage = `spillway: back-up of chosen home circuits, computed

  spillway calc                       list the calculators
  spillway calc NAME --schema         JSON Schema of a calculator's input and output
  spillway calc NAME FILE             compute; FILE is JSON, - for standard input
  spillway calc NAME --lines FILE     one JSON input per line, one answer per line
  spillway schema job                 JSON Schema of the job document
  spillway evaluate JOB.json          the evaluation that the screen shows, findings by id
  spillway plan JOB.json              what is going to be done to the house, in an order in which it can be
  spillway wiring JOB.json            which conductor goes where, through what
    [--csv FILE]                      its schedule as a table; - for standard output
  spillway parts JOB.json [PRICES.csv]  what to buy, in the cheapest put-ups of a price book; tools and hours
    [--csv FILE]                      the order as a table; - for standard output
  spillway estimate JOB.json [PRICES.csv]  what it costs, with what it keeps alive; marked up, taxed
    [--pdf FILE] [--terms FILE]       on paper; rates, mark-up, taxes as JSON
  spillway first-answer WANTS.json    what must live, asked on the first call: how big, designs that may do, what to ask next
    [--schema]                        JSON Schema of the file
  spillway work-order JOB.json        the order of work: tasks with what must be off, what stays live, hold points, minutes
  spillway tests JOB.json             what has to be proven: each test with what is expected and why, circuits by supply, how it stands
  spillway readings JOB.json FILE     a table of readings (test,key,value), judged; ends with 1 where one failed
  spillway card JOB.json              the switch-over card, line by line; ends with 1 where it would go wrong
    [--to battery|utility] [--language en|es]
  spillway handover JOB.json --pdf FILE  the pack that stays with the house, in one document with the job inside
  spillway isolation JOB.json         place by place, change by change: what is opened and locked so that it is dead, what stays live beside it
  spillway hookups JOB.json [FILE]    every method on this house; FILE is a catalogue, CSV or JSON
  spillway positions JOB.json         which circuit on which position of the switch
  spillway one-line JOB.json          the one-line diagram as SVG
    [--house found|planned]           as planned where not given
  spillway read green-button FILE     meters and intervals of a utility's file, in Wh
  spillway read interval-csv FILE     the same of a utility's table
    [--zone NAME]                     whose clocks it was written by; America/New_York where not given
  spillway read meter-log FILE        a meter's series told apart: levels, runs, starts, hours
  spillway read weather FILE          a year of weather, EPW or CSV
  spillway simulate JOB.json          how long it lasts, how likely, what goes first and why
    [--seed N] [--draws N] [--step SECONDS] [--csv FILE]
  spillway search JOB.json [FILE]     the designs of a catalogue that last, cheapest first; without FILE the demo's
    [--seed N] [--draws N] [--most-price N] [--automatic] [--owned] [--no-generator] [--one-person]
    [--stock FILE]                    only what is in stock: JSON, counts by id
  spillway work                       works on background searches until it is stopped
  spillway photographs out|home       moves every firm's photographs into the bucket of SPILLWAY_BUCKET, or back into the database
  spillway loads JOB.json             needs by school, by importance, and what to measure next
  spillway export JOB-ID              a job document out of the database, to standard output
  spillway import FILE                a job document into the database; prints the new job's id
`

/** Does what a command line asks; gives the status to end with. What throws is told in a line. */
export const run = (argv: string[]): Promise<number> =>
  command(argv).catch((error: unknown) => complain(error instanceof Error ? error.message : String(error)))

async function command(argv: string[]): Promise<number> {
  const [verb, ...rest] = argv
  const { values, positionals } = parseArgs({
    args: rest,
    allowPositionals: true,
    options: {
      schema: { type: 'boolean' },
      lines: { type: 'string' },
      seed: { type: 'string' },
      draws: { type: 'string' },
      step: { type: 'string' },
      csv: { type: 'string' },
      pdf: { type: 'string' },
      terms: { type: 'string' },
      automatic: { type: 'boolean' },
      owned: { type: 'boolean' },
      'no-generator': { type: 'boolean' },
      'one-person': { type: 'boolean' },
      'most-price': { type: 'string' },
      stock: { type: 'string' },
      zone: { type: 'string' },
      house: { type: 'string' },
      to: { type: 'string' },
      language: { type: 'string' },
    },
  })
  const [first] = positionals
  switch (verb) {
    case 'calc':
      return calc(first, { schema: values.schema, lines: values.lines, file: positionals[1] })
    case 'schema':
      return (await import('./job')).printSchema(first)
    case 'evaluate':
      return first ? (await import('./job')).evaluateFile(first) : complain('evaluate: give a job file')
    case 'plan':
      return first ? (await import('./job')).planOfFile(first) : complain('plan: give a job file')
    case 'wiring':
      return first
        ? (await import('./wiring')).wiringOfFile(first, values.csv)
        : complain('wiring: give a job file')
    case 'parts':
      return first
        ? (await import('./parts')).partsOfFile(first, positionals[1], values.csv)
        : complain('parts: give a job file')
    case 'estimate':
      return first
        ? (await import('./estimate')).estimateOfFile(first, {
            book: positionals[1],
            terms: values.terms,
            pdf: values.pdf,
          })
        : complain('estimate: give a job file')
    case 'first-answer':
      return (await import('./first')).firstAnswerOfFile(first, values.schema ?? false)
    case 'work-order':
      return first !== undefined
        ? (await import('./order')).orderOfFile(first)
        : complain('work-order: give a job file')
    case 'tests':
      return first ? (await import('./tests')).testsOfFile(first) : complain('tests: give a job file')
    case 'readings':
      return first
        ? (await import('./tests')).readingsOfFile(first, positionals[1])
        : complain('readings: give a job file')
    case 'card':
      return first
        ? (await import('./card')).cardOfFile(first, values.to, values.language)
        : complain('card: give a job file')
    case 'handover':
      return first
        ? (await import('./card')).handOverOfFile(first, values.pdf)
        : complain('handover: give a job file')
    case 'isolation':
      return first
        ? (await import('./isolation')).isolationOfFile(first)
        : complain('isolation: give a job file')
    case 'hookups':
      return first
        ? (await import('./hookup')).hookupsOfFile(first, positionals[1])
        : complain('hookups: give a job file')
    case 'positions':
      return first
        ? (await import('./hookup')).positionsOfFile(first)
        : complain('positions: give a job file')
    case 'one-line':
      return first
        ? (await import('./hookup')).oneLineOfFile(first, values.house)
        : complain('one-line: give a job file')
    case 'loads':
      return first ? (await import('./job')).loadsOfFile(first) : complain('loads: give a job file')
    case 'simulate':
      return first
        ? (await import('./outage')).simulateFile(first, values)
        : complain('simulate: give a job file')
    case 'search':
      return first
        ? (await import('./outage')).searchFile(first, positionals[1], values)
        : complain('search: give a job file')
    case 'work':
      return (await import('./work')).work()
    case 'photographs':
      return first === 'out' || first === 'home'
        ? (await import('./database')).movePhotographs(first)
        : complain('photographs: say out or home')
    case 'read':
      return (await import('./read')).read(first, positionals[1], values.zone)
    case 'export':
      return first ? (await import('./database')).exportJob(first) : complain('export: give the id of a job')
    case 'import':
      return first ? (await import('./database')).importJob(first) : complain('import: give a job file')
    case 'database':
      return (await import('./database')).prepare()
    case undefined:
    case 'help':
      process.stdout.write(usage)
      return 0
    default:
      return complain(`no such command: ${verb}. Try: spillway help`)
  }
}
