import type { Typical } from './typical'

/**
 * Typical loads of households and small businesses. All figures are our own estimates for planning, with the range that
 * ordinary devices of the kind lie in; a plate or a meter replaces them.
 */

type More = Partial<
  Pick<Typical, 'powerFactor' | 'idleW' | 'nature' | 'pattern' | 'stages' | 'sequence' | 'weather'>
> & {
  /** winter, between, summer; one figure for all three */
  duty?: number | readonly [number, number, number]
  unsure?: number
  start?: readonly [number, number, number]
  volts?: 240
  hand?: true
  later?: true
  bond?: true
}

const entry = (
  group: Typical['group'],
  name: string,
  [low, likely, high]: readonly [number, number, number],
  more: More = {},
  words = '',
): Typical => {
  const { pattern = { kind: 'cycling' } } = more
  const share =
    pattern.kind === 'continuous'
      ? 1
      : pattern.kind === 'event'
        ? (pattern.timesPerDay * pattern.minutes) / 1440
        : pattern.kind === 'scheduled'
          ? (pattern.spans.reduce((h, s) => h + ((s.toH - s.fromH + 24) % 24 || 24), 0) / 24) *
            { 'every day': 1, weekdays: 5 / 7, weekends: 2 / 7 }[pattern.days]
          : 0.3
  const { duty = share } = more
  const [winter, between, summer] = typeof duty === 'number' ? [duty, duty, duty] : duty
  return {
    id: name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 40),
    name,
    group,
    volts: more.volts ?? 120,
    runningW: { low, likely, high },
    powerFactor: more.powerFactor ?? (more.nature && more.nature !== 'plain' ? 0.75 : 1),
    idleW: more.idleW ?? 0,
    duty: { winter, between, summer },
    dutyUnsure: more.unsure ?? 0.4,
    nature: more.nature ?? 'plain',
    ...(more.start && { start: { low: more.start[0], likely: more.start[1], high: more.start[2] } }),
    pattern,
    ...(more.stages && { stages: more.stages }),
    ...(more.sequence && { sequence: more.sequence }),
    ...(more.weather && { weather: more.weather }),
    byHand: more.hand ?? false,
    deferrable: more.later ?? false,
    needsBond: more.bond ?? false,
    words,
  }
}

const always = { kind: 'continuous' } as const
const cycle = (cycleMinutes: number) => ({ kind: 'cycling', cycleMinutes }) as const
const times = (timesPerDay: number, minutes: number, fromH?: number, toH?: number) =>
  ({
    kind: 'event',
    timesPerDay,
    minutes,
    ...(fromH !== undefined && toH !== undefined && { fromH, toH }),
  }) as const
const hours = (spans: [number, number][], days: 'every day' | 'weekdays' | 'weekends' = 'every day') =>
  ({ kind: 'scheduled', spans: spans.map(([fromH, toH]) => ({ fromH, toH })), days }) as const

const compressor = { nature: 'compressor', start: [3, 5, 7] } as const
const motor = { nature: 'motor', start: [2, 4, 6] } as const
const fan = { nature: 'motor', start: [1.5, 2.5, 4], powerFactor: 0.8 } as const
const heating = (atC: number, balanceC = 16) => ({ mode: 'heating', balanceC, atC }) as const
const cooling = (atC: number, balanceC = 21) => ({ mode: 'cooling', balanceC, atC }) as const
const burner = [
  { name: 'draft fan', W: 70, seconds: 30 },
  { name: 'igniter', W: 420, seconds: 20 },
] as const
const evening = [[17, 23]] as [number, number][]
const open = [[8, 18]] as [number, number][]

// biome-ignore format: a table is read by its rows
export const library: readonly Typical[] = [
  entry('kitchen', 'Refrigerator, full size', [90, 140, 220], { ...compressor, idleW: 3, duty: [0.32, 0.36, 0.45], pattern: cycle(45) }, 'fridge icebox cold food'),
  entry('kitchen', 'Refrigerator, small', [50, 80, 120], { ...compressor, idleW: 1, duty: [0.3, 0.34, 0.42], pattern: cycle(35) }, 'fridge bar cube'),
  entry('kitchen', 'Refrigerator, variable speed', [40, 75, 160], { idleW: 3, duty: [0.65, 0.7, 0.8], powerFactor: 0.9, pattern: cycle(90) }, 'fridge inverter'),
  entry('kitchen', 'Chest freezer', [70, 110, 180], { ...compressor, idleW: 1, duty: [0.28, 0.33, 0.42], pattern: cycle(50) }, 'deep freeze cold food'),
  entry('kitchen', 'Upright freezer', [90, 140, 220], { ...compressor, idleW: 2, duty: [0.32, 0.38, 0.47], pattern: cycle(50) }, 'cold food'),
  entry('kitchen', 'Refrigerator defrost heater', [250, 400, 600], { pattern: times(1.5, 18) }, 'fridge'),
  entry('kitchen', 'Microwave oven', [900, 1450, 1800], { powerFactor: 0.93, idleW: 3, hand: true, pattern: times(5, 3, 6, 21), unsure: 0.7 }, 'cooking'),
  entry('kitchen', 'Kettle', [1000, 1400, 1500], { hand: true, pattern: times(4, 4, 6, 22), unsure: 0.7 }, 'tea water boil'),
  entry('kitchen', 'Coffee maker', [700, 950, 1400], { hand: true, pattern: times(2, 12, 6, 15), unsure: 0.6 }, 'percolator'),
  entry('kitchen', 'Toaster', [800, 1000, 1500], { hand: true, pattern: times(2, 4, 6, 10), unsure: 0.7 }, 'bread'),
  entry('kitchen', 'Toaster oven', [1000, 1400, 1800], { hand: true, pattern: times(1, 20, 7, 20), unsure: 0.7 }, 'cooking'),
  entry('kitchen', 'Induction plate, portable', [600, 1300, 1800], { powerFactor: 0.96, hand: true, pattern: times(2, 20, 7, 20), unsure: 0.7 }, 'hob cooking'),
  entry('kitchen', 'Rice cooker', [300, 500, 800], { hand: true, pattern: times(1, 35, 10, 19), unsure: 0.6 }, 'cooking'),
  entry('kitchen', 'Slow cooker', [120, 210, 320], { hand: true, pattern: times(0.5, 360, 8, 18), unsure: 0.6 }, 'cooking crock'),
  entry('kitchen', 'Dishwasher', [900, 1200, 1500], { later: true, hand: true, powerFactor: 0.98, pattern: times(0.8, 55, 18, 23), unsure: 0.5 }, 'dishes'),
  entry('kitchen', 'Range hood', [60, 120, 250], { ...fan, hand: true, pattern: times(2, 25, 7, 20) }, 'fan extractor'),
  entry('kitchen', 'Gas range controls and igniter', [5, 12, 45], { idleW: 3, pattern: times(4, 3, 7, 20) }, 'stove cooker'),
  entry('kitchen', 'Garbage disposer', [350, 500, 900], { ...motor, hand: true, pattern: times(2, 1, 7, 21) }, 'sink grinder'),
  entry('kitchen', 'Electric range, one element', [1200, 1800, 2600], { volts: 240, hand: true, pattern: times(2, 30, 7, 20), unsure: 0.7 }, 'stove cooker'),

  entry('heat', 'Gas furnace, single stage', [350, 550, 1000], { ...motor, idleW: 8, powerFactor: 0.8, bond: true, duty: [0.35, 0.35, 0], weather: heating(-5), sequence: [...burner], pattern: cycle(20) }, 'blower forced air'),
  entry('heat', 'Gas furnace, two stage', [350, 650, 1000], { ...motor, idleW: 10, powerFactor: 0.8, bond: true, duty: [0.45, 0.45, 0], weather: heating(-5), stages: [{ W: 320, shareFraction: 0.7 }], sequence: [...burner], pattern: cycle(25) }, 'blower forced air staged'),
  entry('heat', 'Gas furnace, variable blower', [120, 260, 600], { idleW: 10, powerFactor: 0.7, bond: true, duty: [0.5, 0.5, 0], weather: heating(-5), sequence: [...burner], pattern: cycle(30) }, 'ecm forced air'),
  entry('heat', 'Gas boiler controls and fan', [40, 80, 150], { ...fan, idleW: 7, bond: true, duty: [0.4, 0.4, 0.05], weather: heating(-5), sequence: [...burner], pattern: cycle(25) }, 'hydronic'),
  entry('heat', 'Oil burner', [180, 260, 380], { ...motor, idleW: 6, bond: true, duty: [0.3, 0.3, 0.05], weather: heating(-5), pattern: cycle(20) }, 'boiler furnace'),
  entry('heat', 'Circulator pump, fixed speed', [60, 85, 140], { ...motor, start: [1.5, 3, 4], duty: [0.45, 0.45, 0], weather: heating(-5), pattern: cycle(25) }, 'hydronic zone'),
  entry('heat', 'Circulator pump, variable speed', [8, 22, 60], { powerFactor: 0.7, duty: [0.6, 0.6, 0], weather: heating(-5), pattern: cycle(60) }, 'hydronic ecm'),
  entry('heat', 'Pellet stove', [80, 130, 400], { ...fan, idleW: 4, duty: [0.6, 0.6, 0], weather: heating(-5), sequence: [{ name: 'igniter', W: 350, seconds: 300 }], pattern: cycle(120) }, 'wood'),
  entry('heat', 'Wood stove blower', [30, 60, 120], { ...fan, duty: [0.6, 0.3, 0], pattern: cycle(60) }, 'fireplace fan'),
  entry('heat', 'Space heater', [750, 1500, 1500], { hand: true, duty: [0.5, 0.25, 0], pattern: cycle(20), unsure: 0.6 }, 'portable electric'),
  entry('heat', 'Baseboard heater, one room', [500, 1000, 1500], { volts: 240, duty: [0.5, 0.5, 0], weather: heating(-5), pattern: cycle(15) }, 'electric'),
  entry('heat', 'Mini-split heat pump, one head', [300, 750, 1500], { volts: 240, powerFactor: 0.95, idleW: 6, duty: [0.55, 0.55, 0.55], weather: heating(-2), pattern: cycle(60) }, 'heat pump inverter'),
  entry('heat', 'Electric blanket', [50, 90, 180], { hand: true, duty: [0.2, 0.05, 0], pattern: hours([[21, 6]]) }, 'bed'),
  entry('heat', 'Gas unit heater', [60, 110, 250], { ...fan, bond: true, duty: [0.35, 0.35, 0], weather: heating(-5), sequence: [...burner], pattern: cycle(20) }, 'garage shop'),

  entry('cooling', 'Window air conditioner, small', [400, 520, 700], { ...compressor, duty: [0, 0.15, 0.55], weather: cooling(32), pattern: cycle(20) }, 'room'),
  entry('cooling', 'Window air conditioner, large', [900, 1150, 1500], { ...compressor, duty: [0, 0.15, 0.55], weather: cooling(32), pattern: cycle(20) }, 'room'),
  entry('cooling', 'Central air conditioner, 3 ton', [2600, 3300, 4200], { ...compressor, volts: 240, powerFactor: 0.9, idleW: 20, duty: [0, 0.1, 0.5], weather: cooling(33), pattern: cycle(20) }, 'condenser'),
  entry('cooling', 'Mini-split cooling, one head', [200, 550, 1200], { volts: 240, powerFactor: 0.95, idleW: 6, duty: [0, 0.2, 0.55], weather: cooling(32), pattern: cycle(60) }, 'inverter'),
  entry('cooling', 'Ceiling fan', [15, 45, 80], { ...fan, duty: [0.1, 0.25, 0.6], pattern: cycle(240) }, ''),
  entry('cooling', 'Box fan', [35, 60, 100], { ...fan, duty: [0, 0.2, 0.5], pattern: cycle(240) }, 'portable'),
  entry('cooling', 'Dehumidifier', [280, 450, 700], { ...compressor, idleW: 2, later: true, duty: [0.1, 0.35, 0.6], pattern: cycle(30) }, 'basement damp'),
  entry('cooling', 'Whole-house fan', [200, 350, 600], { ...fan, later: true, duty: [0, 0.1, 0.3], pattern: hours([[20, 24]]) }, 'attic'),

  entry('water', 'Well pump, 1/2 hp', [750, 950, 1150], { ...motor, volts: 240, start: [3, 5, 6], pattern: times(20, 2), unsure: 0.6 }, 'submersible'),
  entry('water', 'Well pump, 1 hp', [1300, 1650, 2000], { ...motor, volts: 240, start: [3, 5, 6], pattern: times(16, 2), unsure: 0.6 }, 'submersible'),
  entry('water', 'Well pump, variable speed', [500, 1000, 1600], { volts: 240, powerFactor: 0.9, idleW: 8, pattern: times(20, 3), unsure: 0.6 }, 'constant pressure'),
  entry('water', 'Jet pump, shallow well', [700, 1000, 1300], { ...motor, start: [3, 5, 6], pattern: times(20, 2), unsure: 0.6 }, ''),
  entry('water', 'Sump pump, 1/3 hp', [400, 520, 700], { ...motor, start: [3, 5, 6], duty: [0.02, 0.05, 0.03], pattern: cycle(40), unsure: 1.2 }, 'basement flood'),
  entry('water', 'Sump pump, 1/2 hp', [650, 850, 1100], { ...motor, start: [3, 5, 6], duty: [0.02, 0.05, 0.03], pattern: cycle(40), unsure: 1.2 }, 'basement flood'),
  entry('water', 'Septic effluent pump', [500, 800, 1100], { ...motor, start: [3, 5, 6], idleW: 3, pattern: times(4, 4), unsure: 0.7 }, 'sewage waste'),
  entry('water', 'Sewage ejector pump', [700, 950, 1300], { ...motor, start: [3, 5, 6], pattern: times(10, 1), unsure: 0.7 }, 'waste basement bath'),
  entry('water', 'Gas water heater, power vent', [60, 100, 180], { ...fan, idleW: 4, bond: true, pattern: times(12, 12) }, 'hot water'),
  entry('water', 'Tankless water heater, gas', [40, 75, 150], { idleW: 6, bond: true, pattern: times(14, 6) }, 'hot water instant'),
  entry('water', 'Electric water heater, tank', [3800, 4500, 5500], { volts: 240, later: true, duty: [0.12, 0.1, 0.08], pattern: cycle(180) }, 'hot water'),
  entry('water', 'Heat pump water heater', [350, 500, 700], { ...compressor, volts: 240, powerFactor: 0.9, idleW: 5, later: true, duty: [0.25, 0.2, 0.15], pattern: cycle(240) }, 'hot water'),
  entry('water', 'Ultraviolet water treatment', [25, 40, 60], { pattern: always }, 'filter'),
  entry('water', 'Water softener', [3, 8, 30], { idleW: 3, pattern: times(0.3, 60, 2, 5) }, ''),

  entry('light', 'LED lights, one room', [10, 30, 60], { powerFactor: 0.9, duty: [0.3, 0.25, 0.2], pattern: hours(evening) }, 'lamps lighting'),
  entry('light', 'LED lights, whole floor', [40, 90, 180], { powerFactor: 0.9, duty: [0.28, 0.22, 0.16], pattern: hours(evening) }, 'lamps lighting'),
  entry('light', 'Fluorescent fixtures', [60, 120, 240], { powerFactor: 0.88, duty: [0.3, 0.25, 0.2], pattern: hours(evening) }, 'tube workshop'),
  entry('light', 'Night and exit lights', [4, 10, 25], { pattern: always }, 'emergency sign'),
  entry('light', 'Outdoor LED floods', [20, 50, 120], { powerFactor: 0.9, duty: [0.5, 0.4, 0.3], pattern: hours([[18, 23]]) }, 'yard security'),

  entry('internet and office', 'Router and modem', [10, 18, 30], { powerFactor: 0.65, pattern: always, unsure: 0 }, 'wifi internet'),
  entry('internet and office', 'Fiber terminal', [5, 9, 15], { powerFactor: 0.6, pattern: always, unsure: 0 }, 'ont internet'),
  entry('internet and office', 'Laptop', [25, 50, 95], { powerFactor: 0.7, idleW: 1, pattern: hours([[8, 17]]), duty: 0.3 }, 'computer'),
  entry('internet and office', 'Desktop computer and screen', [90, 160, 350], { powerFactor: 0.9, idleW: 5, pattern: hours([[8, 17]]), duty: 0.33 }, 'pc monitor'),
  entry('internet and office', 'Laser printer', [400, 700, 1200], { powerFactor: 0.9, idleW: 6, hand: true, pattern: times(4, 2, 8, 18) }, 'copier'),
  entry('internet and office', 'Phone charging', [5, 12, 30], { powerFactor: 0.6, pattern: times(3, 100) }, 'cell mobile'),
  entry('internet and office', 'Alarm panel and cameras', [15, 35, 80], { powerFactor: 0.7, pattern: always, unsure: 0 }, 'security'),
  entry('internet and office', 'Small server or network rack', [80, 180, 400], { powerFactor: 0.95, pattern: always, unsure: 0.1 }, 'nas'),

  entry('medical', 'Oxygen concentrator, home', [280, 350, 450], { ...compressor, start: [2, 3, 5], powerFactor: 0.85, pattern: always, unsure: 0.1 }, 'breathing'),
  entry('medical', 'Oxygen concentrator, portable', [40, 80, 140], { powerFactor: 0.7, pattern: times(4, 150) }, 'breathing'),
  entry('medical', 'CPAP with humidifier', [30, 60, 110], { powerFactor: 0.7, idleW: 1, pattern: hours([[22, 7]]) }, 'sleep apnea breathing'),
  entry('medical', 'Medicine refrigerator', [45, 70, 110], { ...compressor, idleW: 2, duty: [0.28, 0.33, 0.42], pattern: cycle(30) }, 'insulin fridge'),
  entry('medical', 'Nebulizer', [60, 100, 180], { ...motor, hand: true, pattern: times(4, 12) }, 'breathing'),
  entry('medical', 'Stair lift', [150, 350, 600], { ...motor, idleW: 8, hand: true, pattern: times(6, 1) }, 'mobility chair'),
  entry('medical', 'Adjustable or hospital bed', [80, 180, 400], { ...motor, idleW: 4, hand: true, pattern: times(8, 1) }, ''),

  entry('laundry', 'Washing machine, front load', [250, 500, 1000], { ...motor, start: [1.5, 2.5, 4], powerFactor: 0.8, idleW: 2, hand: true, later: true, pattern: times(0.6, 55, 8, 20) }, 'washer clothes'),
  entry('laundry', 'Washing machine, top load', [400, 600, 900], { ...motor, powerFactor: 0.7, idleW: 1, hand: true, later: true, pattern: times(0.6, 40, 8, 20) }, 'washer clothes'),
  entry('laundry', 'Gas dryer', [250, 450, 700], { ...motor, hand: true, later: true, pattern: times(0.6, 45, 8, 20) }, 'clothes'),
  entry('laundry', 'Electric dryer', [4000, 5000, 5600], { ...motor, start: [1.1, 1.3, 1.6], powerFactor: 0.98, volts: 240, hand: true, later: true, pattern: times(0.6, 45, 8, 20) }, 'clothes'),
  entry('laundry', 'Iron', [800, 1200, 1700], { hand: true, later: true, duty: 0.01, pattern: times(0.3, 30, 8, 20) }, 'clothes'),

  entry('outlets and comfort', 'Television', [50, 100, 220], { powerFactor: 0.9, idleW: 1, pattern: hours([[18, 23]]) }, 'tv screen'),
  entry('outlets and comfort', 'Room outlets, light use', [20, 60, 200], { powerFactor: 0.8, idleW: 4, pattern: hours([[7, 22]]), duty: 0.3, unsure: 0.8 }, 'receptacles'),
  entry('outlets and comfort', 'Baby monitors', [4, 10, 20], { powerFactor: 0.6, pattern: always, unsure: 0.2 }, 'child'),
  entry('outlets and comfort', 'Hair dryer', [1000, 1500, 1875], { hand: true, pattern: times(1, 6, 6, 9) }, 'bath'),
  entry('outlets and comfort', 'Vacuum cleaner', [600, 1000, 1400], { ...motor, start: [1.5, 2, 3], powerFactor: 0.95, hand: true, later: true, pattern: times(0.3, 20, 9, 18) }, 'cleaning'),
  entry('outlets and comfort', 'Aquarium with heater', [40, 90, 200], { powerFactor: 0.9, duty: [0.7, 0.6, 0.4], pattern: cycle(30) }, 'fish tank'),
  entry('outlets and comfort', 'Air purifier', [15, 40, 80], { ...fan, duty: 0.8, pattern: cycle(240) }, 'filter smoke'),
  entry('outlets and comfort', 'Humidifier', [25, 40, 300], { duty: [0.5, 0.2, 0], pattern: cycle(120) }, ''),
  entry('outlets and comfort', 'Bathroom fan', [12, 25, 60], { ...fan, hand: true, pattern: times(4, 15) }, 'extractor'),

  entry('workshop', 'Air compressor, small', [900, 1300, 1700], { ...compressor, hand: true, later: true, pattern: times(4, 5, 8, 17), unsure: 1 }, 'tools'),
  entry('workshop', 'Table saw', [1200, 1700, 2200], { ...motor, hand: true, later: true, pattern: times(6, 3, 8, 17), unsure: 1 }, 'tools'),
  entry('workshop', 'Pottery wheel', [150, 350, 700], { ...motor, start: [1.2, 2, 3], hand: true, later: true, pattern: times(3, 60, 9, 17), unsure: 0.7 }, 'ceramics'),
  entry('workshop', 'Battery tool chargers', [60, 140, 300], { powerFactor: 0.65, later: true, pattern: times(2, 60, 8, 18) }, 'tools'),
  entry('workshop', 'Dust collector', [700, 1100, 1600], { ...motor, hand: true, later: true, pattern: times(4, 10, 8, 17) }, 'fan tools'),

  entry('outdoors and garage', 'Garage door opener', [300, 500, 800], { ...motor, start: [1.5, 2.5, 4], idleW: 5, hand: true, pattern: times(6, 0.5) }, ''),
  entry('outdoors and garage', 'Gate opener', [100, 250, 500], { ...motor, idleW: 6, hand: true, pattern: times(6, 0.5) }, ''),
  entry('outdoors and garage', 'Pool pump, single speed', [1000, 1500, 2100], { ...motor, volts: 240, later: true, duty: [0.1, 0.25, 0.35], pattern: hours([[9, 17]]) }, 'swimming'),
  entry('outdoors and garage', 'Vehicle charger, 120 V', [1200, 1400, 1440], { powerFactor: 0.99, idleW: 3, later: true, pattern: times(0.7, 480, 18, 7) }, 'ev car'),
  entry('outdoors and garage', 'Vehicle charger, 240 V', [3800, 7200, 9600], { volts: 240, powerFactor: 0.99, idleW: 4, later: true, pattern: times(0.6, 180, 21, 6) }, 'ev car'),
  entry('outdoors and garage', 'Pipe heating cable', [60, 150, 400], { duty: [0.5, 0.1, 0], weather: heating(-8, 4), pattern: cycle(60) }, 'heat tape frost'),
  entry('outdoors and garage', 'Electric fence charger', [3, 8, 20], { pattern: always, unsure: 0.1 }, 'farm'),

  entry('small business', 'Reach-in refrigerator', [300, 450, 700], { ...compressor, idleW: 10, duty: [0.45, 0.5, 0.6], pattern: cycle(25) }, 'commercial cooler'),
  entry('small business', 'Display cooler', [250, 400, 650], { ...compressor, idleW: 40, duty: [0.45, 0.5, 0.6], pattern: cycle(25) }, 'drinks merchandiser'),
  entry('small business', 'Ice machine', [350, 550, 900], { ...compressor, idleW: 8, later: true, duty: [0.4, 0.5, 0.7], pattern: cycle(30) }, 'commercial'),
  entry('small business', 'Point of sale', [25, 55, 110], { powerFactor: 0.75, pattern: hours(open), duty: 0.4 }, 'till register checkout'),
  entry('small business', 'Card reader and receipt printer', [8, 15, 40], { powerFactor: 0.6, pattern: hours(open), duty: 0.4 }, 'till'),
  entry('small business', 'Shop lights, LED', [150, 350, 700], { powerFactor: 0.92, pattern: hours(open), duty: 0.42 }, 'store lighting'),
  entry('small business', 'Espresso machine', [1200, 1700, 3000], { hand: true, idleW: 80, duty: 0.15, pattern: hours([[6, 16]]) }, 'coffee cafe'),
]
