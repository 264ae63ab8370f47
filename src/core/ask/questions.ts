import type { Asked, Brief } from './brief'

/** How a question is answered. A figure's unit stands beside it. */
type Answering =
  | { by: 'choice'; options: readonly (readonly [value: string, label: string])[] }
  | { by: 'figure'; unit: string; perCent?: boolean }
  | { by: 'words'; example: string }

export interface Question {
  key: Asked
  group: (typeof groups)[number]
  ask: string
  /** why it is asked, in plain words */
  why: string
  answering: Answering
  /** asked only when earlier answers make it matter */
  when?: (brief: Brief) => boolean
}

export const groups = ['The outage', 'What must live', 'What is there', 'The place and its limits'] as const

const choice = (...options: (readonly [string, string])[]): Answering => ({
  by: 'choice',
  options: [...options, ['unknown', 'not known yet']],
})
const yesNo = choice(['yes', 'yes'], ['no', 'no'])
const words = (example: string): Answering => ({ by: 'words', example })

/** Everything that may be asked on the first call, in the order it is asked. */
export const questions: readonly Question[] = [
  {
    key: 'season',
    group: 'The outage',
    ask: 'In which season do the outages come?',
    why: 'Heat in winter and cooling in summer decide the energy; cold takes from the battery.',
    answering: choice(
      ['winter', 'winter'],
      ['spring', 'spring'],
      ['summer', 'summer'],
      ['autumn', 'autumn'],
      ['any', 'any season'],
    ),
  },
  {
    key: 'timesPerYear',
    group: 'The outage',
    ask: 'How often in a year?',
    why: 'A weekly habit wants an easy changeover; one storm in five years forgives cords.',
    answering: { by: 'figure', unit: 'a year' },
  },
  {
    key: 'atHome',
    group: 'The outage',
    ask: 'Is someone there to flip switches?',
    why: 'A hook-up worked by hand is no use in an empty house.',
    answering: choice(
      ['always', 'always'],
      ['mostly', 'mostly'],
      ['seldom', 'seldom'],
      ['nobody lives there', 'nobody lives there'],
    ),
  },
  {
    key: 'automatic',
    group: 'The outage',
    ask: 'Must it come on by itself?',
    why: 'An automatic hook-up has to carry everything on it at once, or shed.',
    answering: choice(['must', 'it must'], ['would be nice', 'would be nice'], ['no', 'no']),
  },
  {
    key: 'dailyUse',
    group: 'The outage',
    ask: 'Is it to work every day too?',
    why: 'Using cheap hours or own sun every day wears the battery and rules out hook-ups that part the house.',
    answering: choice(
      ['no', 'outages only'],
      ['cheap rate', 'cheap hours'],
      ['own solar', 'own solar power'],
    ),
  },
  {
    key: 'medical',
    group: 'What must live',
    ask: 'Does anyone depend on a powered medical device?',
    why: 'It comes first in everything, and asks for a second way.',
    answering: yesNo,
  },
  {
    key: 'medicalWhat',
    group: 'What must live',
    ask: 'Which device?',
    why: 'Its nameplate, its own battery and how long it may be without decide the changeover.',
    answering: words('oxygen concentrator'),
    when: b => b.medical === 'yes',
  },
  {
    key: 'water',
    group: 'What must live',
    ask: 'Where does the water come from?',
    why: 'A well pump is usually the largest motor, and 240 V.',
    answering: choice(['utility', 'the utility'], ['own well', 'an own well']),
  },
  {
    key: 'wastewater',
    group: 'What must live',
    ask: 'Does waste or ground water leave by a pump?',
    why: 'A sump or septic pump floods the house when it stops.',
    answering: choice(['by gravity', 'no, by gravity'], ['pumped', 'yes, pumped']),
  },
  {
    key: 'heat',
    group: 'What must live',
    ask: 'What heats the place?',
    why: 'A burner needs little power but may want a bonded neutral; electric heat is beyond most batteries.',
    answering: choice(
      ['gas or oil burner', 'a gas or oil burner'],
      ['heat pump', 'a heat pump'],
      ['electric', 'electric heaters'],
      ['wood', 'wood'],
      ['none', 'nothing to heat'],
    ),
  },
  {
    key: 'largestMotor',
    group: 'What must live',
    ask: 'Which is the largest motor that must run?',
    why: 'Its locked-rotor amps decide which equipment can start it at all.',
    answering: words('well pump, 3/4 hp'),
  },
  {
    key: 'largestMotorVolts',
    group: 'What must live',
    ask: 'At which voltage does it run?',
    why: '240 V rules out every 120 V source without a transformer.',
    answering: choice(['120', '120 V'], ['240', '240 V']),
    when: b => Boolean(b.largestMotor),
  },
  {
    key: 'lockedRotorA',
    group: 'What must live',
    ask: 'Its locked-rotor amps (LRA)?',
    why: 'From the nameplate; otherwise it stands on the request list.',
    answering: { by: 'figure', unit: 'A' },
    when: b => Boolean(b.largestMotor),
  },
  {
    key: 'solar',
    group: 'What is there',
    ask: 'Is there rooftop solar?',
    why: 'It shuts itself down in an outage, and must stay off a panel that a source feeds unless that source can absorb it.',
    answering: yesNo,
  },
  {
    key: 'solarKind',
    group: 'What is there',
    ask: 'Of which kind?',
    why: 'One with a battery may carry the house already.',
    answering: choice(['grid-tied', 'grid-tied only'], ['with a battery', 'with a battery']),
    when: b => b.solar === 'yes',
  },
  {
    key: 'generator',
    group: 'What is there',
    ask: 'Is there a fuel generator?',
    why: 'A few hours of it a day stretch a battery a long way.',
    answering: yesNo,
  },
  {
    key: 'generatorW',
    group: 'What is there',
    ask: 'How many running watts?',
    why: 'It has to carry the charger, and the house beside it.',
    answering: { by: 'figure', unit: 'W' },
    when: b => b.generator === 'yes',
  },
  {
    key: 'generatorNeutral',
    group: 'What is there',
    ask: 'Is its neutral bonded to its frame?',
    why: 'There must be exactly one neutral-to-ground bond.',
    answering: choice(['floating', 'floating'], ['bonded', 'bonded']),
    when: b => b.generator === 'yes',
  },
  {
    key: 'vehicle',
    group: 'What is there',
    ask: 'Is there a vehicle with a power outlet?',
    why: 'Huge energy, small power, usually 120 V only.',
    answering: yesNo,
  },
  {
    key: 'vehicleVolts',
    group: 'What is there',
    ask: 'At which voltage is its outlet?',
    why: 'At 120 V half of the panel stays dead, or nothing runs at 240 V.',
    answering: choice(['120', '120 V'], ['120/240', '120/240 V']),
    when: b => b.vehicle === 'yes',
  },
  {
    key: 'vehicleKeepFraction',
    group: 'What is there',
    ask: 'How much of its battery must stay to drive away?',
    why: 'The kept reserve is not there for the house.',
    answering: { by: 'figure', unit: '%', perCent: true },
    when: b => b.vehicle === 'yes',
  },
  {
    key: 'station',
    group: 'What is there',
    ask: 'Is there a portable power station already?',
    why: 'What the customer owns is used first.',
    answering: yesNo,
  },
  {
    key: 'stationWhat',
    group: 'What is there',
    ask: 'Which one?',
    why: 'Its outlets and its neutral decide what may be connected.',
    answering: words('as its label says, with its watts and watt-hours'),
    when: b => b.station === 'yes',
  },
  {
    key: 'inlet',
    group: 'What is there',
    ask: 'Is there an inlet or transfer switch from earlier days?',
    why: 'It may save the work, or be a danger as it is.',
    answering: yesNo,
  },
  {
    key: 'inletKind',
    group: 'What is there',
    ask: 'What is it?',
    why: 'Without an interlock the inlet’s pins are live from the panel.',
    answering: choice(
      ['inlet with interlock', 'inlet with interlock'],
      ['inlet without interlock', 'inlet without interlock'],
      ['transfer switch', 'transfer switch'],
    ),
    when: b => b.inlet === 'yes',
  },
  {
    key: 'access',
    group: 'The place and its limits',
    ask: 'How does one get there and in?',
    why: 'Parking, keys, the dog: a lost morning otherwise.',
    answering: words('side door, park in the lane'),
  },
  {
    key: 'space',
    group: 'The place and its limits',
    ask: 'Where could equipment stand or hang?',
    why: 'Clear space, reach of the cord, and a battery’s weight.',
    answering: words('garage wall left of the panel'),
  },
  {
    key: 'coldestC',
    group: 'The place and its limits',
    ask: 'How cold does it get where it stands?',
    why: 'Lithium iron must not be charged below freezing.',
    answering: { by: 'figure', unit: '°C' },
  },
  {
    key: 'recordLowC',
    group: 'The place and its limits',
    ask: 'What is the coldest ever recorded outdoors?',
    why: 'Solar volts rise as the modules cool: the coldest clear morning decides how many may stand in series.',
    answering: { by: 'figure', unit: '°C' },
  },
  {
    key: 'noise',
    group: 'The place and its limits',
    ask: 'How much noise is allowed?',
    why: 'It decides whether a generator may run, and when.',
    answering: choice(['any', 'any'], ['quiet at night', 'quiet at night'], ['none', 'none at all']),
  },
  {
    key: 'budget',
    group: 'The place and its limits',
    ask: 'What may it cost, at most?',
    why: 'It rules out whole ways of connecting before anyone draws them.',
    answering: { by: 'figure', unit: '$' },
  },
]

/** The questions that matter given what was answered, in order. */
export const askedOf = (brief: Brief): Question[] => questions.filter(q => q.when?.(brief) ?? true)

/** An answer that says nothing yet. */
export const isOpen = (brief: Brief, key: Asked): boolean =>
  brief[key] === undefined || brief[key] === 'unknown'

/** The answer in words, as the question offers it; null while it is open. */
export function answerText(brief: Brief, { key, answering }: Question): string | null {
  const value = brief[key]
  if (value === undefined) return null
  if (answering.by === 'choice') return answering.options.find(([v]) => v === value)?.[1] ?? String(value)
  if (answering.by === 'words') return String(value)
  const figure = answering.perCent ? Math.round(Number(value) * 100) : value
  return answering.unit === '$' ? `$${Number(figure).toLocaleString('en-US')}` : `${figure} ${answering.unit}`
}

/** What an answer makes likely to be wanted: offered, never entered by itself. */
export function likelyWants(brief: Brief): string[] {
  const had = new Set(brief.wants.map(w => w.name.toLowerCase()))
  const likely = [
    ...(brief.medical === 'yes' ? [brief.medicalWhat || 'Medical device'] : []),
    ...(brief.water === 'own well' ? ['Well pump'] : []),
    ...(brief.wastewater === 'pumped' ? ['Sump pump'] : []),
    ...(brief.heat === 'gas or oil burner' ? ['Heating'] : []),
    ...(brief.heat === 'heat pump' ? ['Mini-split'] : []),
    'Refrigerator',
    'Lights',
    'Internet',
    'Garage door',
    'A few outlets',
  ]
  return likely.filter(name => !had.has(name.toLowerCase()))
}
