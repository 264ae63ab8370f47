import fc from 'fast-check'
import { calculate } from './calculator'
import { calculators } from './calculators'
import { cell, published } from './fixtures/published'

/**
 * The calculators against their contract, written out a second time in the plainest way and with the published tables,
 * on inputs nobody chose. `undefined` from the second writing: it must be refused.
 */

const conductor = new Map(published('conductors').map(r => [r.size ?? '', r]))
const sizes = [...conductor.keys()]
const get = (size: string, key: string) => cell(conductor.get(size), key)

/** No figures so small that their quotients leave the doubles: those have a test of their own. */
const plain = (value: number) => (value < 1e-6 ? 0 : value)
const from0 = (max: number) => fc.double({ min: 0, max, noNaN: true }).map(plain)
const above0 = (max: number) => fc.double({ min: 1e-3, max, noNaN: true })
const share = from0(1)
const share1 = fc.double({ min: 0.05, max: 1, noNaN: true })
const metal = fc.constantFrom('cu', 'al')
const size = fc.constantFrom(...sizes)
const degrees = fc.double({ min: -60, max: 100, noNaN: true }).map(c => Math.round(c * 1e6) / 1e6)
const count = fc.integer({ min: 1, max: 60 })

type Expected = Record<string, unknown> | undefined

/** Equal to 1e-9 of the figure, all else exactly. */
function agree(name: string, got: unknown, expected: unknown) {
  if (typeof expected === 'number' && typeof got === 'number') {
    const off = Math.abs(got - expected)
    if (off > 1e-9 * Math.max(1, Math.abs(expected)))
      throw new Error(`${name}: ${got} instead of ${expected}`)
  } else if (Array.isArray(expected) && Array.isArray(got)) {
    expect(got).toHaveLength(expected.length)
    expected.forEach((e, n) => {
      agree(`${name}[${n}]`, got[n], e)
    })
  } else if (expected !== null && typeof expected === 'object' && got !== null && typeof got === 'object')
    for (const [key, value] of Object.entries(expected)) agree(`${name}.${key}`, Reflect.get(got, key), value)
  else expect([name, got]).toEqual([name, expected])
}

function check<I>(name: string, inputs: fc.Arbitrary<I>, expected: (input: I) => Expected) {
  test(`${name} agrees with its contract, and refuses what it must`, () => {
    const calculator = calculators.find(c => c.name === name)
    if (!calculator) throw new Error(`no ${name}`)
    fc.assert(
      fc.property(inputs, input => {
        const outcome = calculate(calculator, input)
        const should = expected(input)
        if (!should) expect(outcome.ok).toBe(false)
        else if (!outcome.ok) throw new Error(JSON.stringify(outcome.faults))
        else agree(name, outcome.value.result, should)
      }),
      { numRuns: 300 },
    )
  })
}

const ordinaryA = (material: string, s: string): number | null => {
  const column = get(s, `${material}_60C_A`)
  return column === null ? null : Math.min(column, get(s, `small_conductor_${material}_A`) ?? Infinity)
}

const standards = published('breakers').map(r => cell(r, 'standard_A') ?? 0)
const ambients = published('ambient')
const adjustments = published('adjustment')

check(
  'ampacity',
  fc.record(
    {
      material: metal,
      size,
      insulationC: fc.constantFrom(60, 75, 90),
      terminationC: fc.constantFrom(60, 75, 90),
      ambientC: degrees,
      currentCarrying: count,
      nipple: fc.boolean(),
      roundUp: fc.boolean(),
    },
    { requiredKeys: ['material', 'size', 'insulationC'] },
  ),
  i => {
    const termination = i.terminationC ?? Math.min(75, i.insulationC)
    const ambientC = Math.ceil(i.ambientC ?? 30)
    const band = ambients.find(
      r => (cell(r, 'ambient_C_from') ?? -Infinity) <= ambientC && ambientC <= Number(r.ambient_C_to),
    )
    const ambientFactor = cell(band, `factor_${i.insulationC}C`)
    const tableA = get(i.size, `${i.material}_${i.insulationC}C_A`)
    if (tableA === null || ambientFactor === null || termination > i.insulationC) return undefined
    const n = i.currentCarrying ?? 3
    const group = adjustments.find(
      r => n >= Number(r.current_carrying_from) && n <= (cell(r, 'current_carrying_to') ?? Infinity),
    )
    const adjustmentFactor = i.nipple ? 1 : Number(group?.factor)
    const deratedA = tableA * ambientFactor * adjustmentFactor
    const terminationA = get(i.size, `${i.material}_${termination}C_A`) ?? 0
    const usableA = Math.min(deratedA, terminationA)
    const fitting = i.roundUp
      ? standards.filter(a => a >= usableA)[0]
      : standards.filter(a => a <= usableA).pop()
    const limit = get(i.size, `small_conductor_${i.material}_A`) ?? Infinity
    return {
      tableA,
      ambientFactor,
      adjustmentFactor,
      deratedA,
      terminationA,
      usableA,
      maxBreakerA: fitting === undefined ? null : Math.min(fitting, limit),
    }
  },
)

check(
  'conduit-fill',
  fc.record({
    conduit: fc.constantFrom('EMT', 'RMC', 'PVC40', 'LFNC-B', 'FMC'),
    conductors: fc.array(fc.record({ size, count: fc.integer({ min: 1, max: 9 }) }), { maxLength: 4 }),
    nipple: fc.boolean(),
  }),
  i => {
    if (!i.conductors.length) return undefined
    let usedIn2 = 0
    let n = 0
    for (const c of i.conductors) {
      usedIn2 += (get(c.size, 'thhn_area_in2') ?? 0) * c.count
      n += c.count
    }
    const limitFraction = i.nipple ? 0.6 : ([0, 0.53, 0.31][n] ?? 0.4)
    const rows = published('conduit').map(r => ({
      tradeSize: r.trade_size,
      areaIn2: Number(r[`${i.conduit}_in2`]),
    }))
    const fits = rows.filter(r => usedIn2 / r.areaIn2 <= limitFraction)
    return {
      usedIn2,
      limitFraction,
      smallest: fits[0]?.tradeSize ?? null,
      sizes: rows.map(r => ({ ...r, fillFraction: usedIn2 / r.areaIn2, fits: fits.includes(r) })),
    }
  },
)

check(
  'equipment-ground',
  fc.record(
    { material: metal, breakerA: above0(450), requiredSize: size, installedSize: size, circuitSize: size },
    { requiredKeys: ['material', 'breakerA'] },
  ),
  i => {
    const made = sizes.filter(s => get(s, `${i.material}_60C_A`) !== null)
    const given = [i.requiredSize, i.installedSize, i.circuitSize].filter(s => s !== undefined)
    if (i.breakerA > 400 || given.some(s => !made.includes(s))) return undefined
    if ((i.requiredSize === undefined) !== (i.installedSize === undefined)) return undefined
    const row = published('equipment_ground').find(r => i.breakerA <= Number(r.breaker_A_up_to))
    const baseSize = row?.[`${i.material}_size`] ?? ''
    const mils = (s: string) => get(s, 'circular_mils') ?? 0
    let needed = mils(baseSize)
    if (i.requiredSize && i.installedSize) {
      if (mils(i.installedSize) < mils(i.requiredSize)) return undefined
      needed = (mils(baseSize) * mils(i.installedSize)) / mils(i.requiredSize)
    }
    const enlarged = made.find(s => mils(s) >= needed)
    if (!enlarged) return undefined
    const capped = i.circuitSize && mils(i.circuitSize) < mils(enlarged) ? i.circuitSize : enlarged
    return { baseSize, size: capped }
  },
)

check(
  'voltage-drop',
  fc.record(
    {
      material: metal,
      size,
      oneWayFt: above0(800),
      currentA: from0(80),
      sourceV: fc.constantFrom(120, 240),
      path: fc.constantFrom('two-wire', 'balanced'),
      conductorC: degrees,
    },
    { requiredKeys: ['material', 'size', 'oneWayFt', 'currentA', 'sourceV', 'path'] },
  ),
  i => {
    const table = get(i.size, `${i.material}_ohm_per_kft_75C`)
    if (table === null) return undefined
    const R = table * (1 + (i.material === 'cu' ? 0.00323 : 0.0033) * ((i.conductorC ?? 75) - 75))
    const ohms = ((i.path === 'two-wire' ? 2 : 1) * i.oneWayFt * R) / 1000
    const dropV = ohms * i.currentA
    if (i.sourceV - dropV < 0) return undefined
    return {
      ohms,
      dropV,
      dropFraction: dropV / i.sourceV,
      loadV: i.sourceV - dropV,
      lossW: dropV * i.currentA,
    }
  },
)

const some = fc.record({
  size: fc.constantFrom('14', '12', '10', '8', '6', '4'),
  count: fc.integer({ min: 1, max: 9 }),
})
check(
  'box-fill',
  fc.record(
    {
      boxIn3: above0(60),
      conductors: fc.array(some, { maxLength: 3 }),
      grounds: some,
      devices: fc.array(some, { maxLength: 2 }),
      clamps: fc.boolean(),
      edition: fc.constantFrom(2017, 2020, 2023),
    },
    { requiredKeys: ['boxIn3', 'conductors'] },
  ),
  i => {
    const { grounds: g, devices = [] } = i
    const all = [...i.conductors, ...devices, ...(g ? [g] : [])]
    if (all.some(c => get(c.size, 'box_volume_in3') === null)) return undefined
    const volume = (s: string) => get(s, 'box_volume_in3') ?? 0
    let requiredIn3 = 0
    for (const c of i.conductors) requiredIn3 += volume(c.size) * c.count
    for (const d of devices) requiredIn3 += 2 * volume(d.size) * d.count
    if (g)
      requiredIn3 += volume(g.size) * (1 + (i.edition !== 2017 && g.count > 4 ? 0.25 * (g.count - 4) : 0))
    const largest = [...i.conductors, ...(g ? [g] : [])].map(c => volume(c.size)).sort((a, b) => b - a)[0]
    if (i.clamps) requiredIn3 += largest ?? 0
    return { requiredIn3, boxIn3: i.boxIn3, fits: requiredIn3 <= i.boxIn3 }
  },
)

check(
  'shared-neutral',
  fc.record({
    arrangement: fc.constantFrom('one-leg', 'tied', 'split-phase', 'independent'),
    breakerAA: above0(60),
    breakerBA: above0(60),
    neutral: fc.record({ material: metal, size }),
    sourceBreakerA: above0(60),
  }),
  ({ arrangement, breakerAA: a, breakerBA: b, sourceBreakerA: s, neutral }) => {
    const neutralA = ordinaryA(neutral.material, neutral.size)
    if (neutralA === null) return undefined
    const worstNeutralA =
      arrangement === 'tied'
        ? Math.min(a + b, s)
        : arrangement === 'independent'
          ? Math.min(a, s) + Math.min(b, s)
          : Math.min(Math.max(a, b), s)
    return { worstNeutralA, neutralA, ok: worstNeutralA <= neutralA }
  },
)

const connectors = published('receptacles')
const types = connectors.map(r => r.type ?? '')
const connector = (type: string | undefined) => connectors.find(r => r.type === type)
const link = fc.record(
  {
    kind: fc.constantFrom('cord', 'adapter', 'inlet', 'wire', 'breaker'),
    from: fc.constantFrom(...types),
    to: fc.constantFrom(...types),
    ratingA: above0(60),
    material: metal,
    size,
    lengthFt: above0(200),
  },
  { requiredKeys: ['kind', 'ratingA'] },
)
check(
  'cord-chain',
  fc.record(
    {
      outlet: fc.record({ type: fc.constantFrom(...types), limitA: above0(60) }, { requiredKeys: ['type'] }),
      links: fc.array(link, { minLength: 1, maxLength: 4 }),
      sourceV: fc.constantFrom(120, 240),
      continuous: fc.boolean(),
      loadA: above0(60),
    },
    { requiredKeys: ['outlet', 'links', 'sourceV'] },
  ),
  i => {
    const cords = published('cords')
    const wireA = (l: (typeof i.links)[number]) => {
      if (l.size === undefined) return null
      if (l.kind === 'cord')
        return cell(
          cords.find(c => c.size === l.size),
          'two_current_carrying_A',
        )
      return ordinaryA(l.material ?? 'cu', l.size)
    }
    for (const l of i.links) {
      if (l.kind === 'cord' && l.material === 'al') return undefined
      if (l.size !== undefined && wireA(l) === null) return undefined
    }
    const amps = (type?: string) => cell(connector(type), 'amps') ?? Infinity
    const ratings = [Math.min(i.outlet.limitA ?? Infinity, amps(i.outlet.type))]
    for (const l of i.links) ratings.push(Math.min(l.ratingA, amps(l.from), amps(l.to)))
    const limitA = Math.min(...ratings)
    const limitedBy = ratings.indexOf(limitA) - 1
    const continuousA = i.continuous === false ? limitA : 0.8 * limitA
    let ohms = 0
    for (const l of i.links)
      if (l.size !== undefined && l.lengthFt !== undefined)
        ohms += (2 * l.lengthFt * (get(l.size, `${l.material ?? 'cu'}_ohm_per_kft_75C`) ?? 0)) / 1000
    const dropV = ohms * (i.loadA ?? continuousA)
    const faults: { at: number; code: string }[] = []
    const volts = (at: number, here: (string | undefined)[]) => {
      const rows = here.map(connector).filter(r => r !== undefined)
      if (i.sourceV === 240 && rows.some(r => r.volts === '120')) faults.push({ at, code: 'no-240' })
      if (i.sourceV === 120 && rows.some(r => r.neutral === 'no')) faults.push({ at, code: 'no-120' })
    }
    const overload = (at: number) => {
      if (at === limitedBy && i.loadA !== undefined && i.loadA > limitA) faults.push({ at, code: 'overload' })
    }
    volts(-1, [i.outlet.type])
    overload(-1)
    i.links.forEach((l, at) => {
      const before = connector(at === 0 ? i.outlet.type : i.links[at - 1]?.to)
      if (l.from !== undefined && !before?.accepts_plugs?.split(';').includes(l.from))
        faults.push({ at, code: 'no-mate' })
      const carries = wireA(l)
      if (carries !== null && l.ratingA > carries) faults.push({ at, code: 'undersized' })
      volts(at, [l.from, l.to])
      overload(at)
    })
    return { limitA, limitedBy, continuousA, dropV, dropFraction: dropV / i.sourceV, faults }
  },
)

check(
  'load-log',
  fc.record({
    readings: fc.array(fc.record({ hours: above0(100), energyWh: from0(5000) }), { maxLength: 5 }),
    runningW: above0(2000),
    idleW: from0(300),
  }),
  i => {
    if (!i.readings.length || i.runningW <= i.idleW) return undefined
    let Wh = 0
    let h = 0
    for (const r of i.readings) {
      Wh += r.energyWh
      h += r.hours
    }
    const meanW = Wh / h
    const means = i.readings.map(r => r.energyWh / r.hours)
    return {
      meanW,
      dutyFraction: Math.min(1, Math.max(0, (meanW - i.idleW) / (i.runningW - i.idleW))),
      dailyWh: 24 * meanW,
      spreadFraction: meanW === 0 ? 0 : (Math.max(...means) - Math.min(...means)) / meanW,
    }
  },
)

check(
  'weather-scale',
  fc.record({
    mode: fc.constantFrom('heating', 'cooling'),
    dutyFraction: share,
    measuredC: degrees,
    balanceC: degrees,
    designC: degrees,
  }),
  i => {
    if (i.mode === 'heating' ? i.measuredC >= i.balanceC : i.measuredC <= i.balanceC) return undefined
    const raw = i.dutyFraction * Math.max(0, (i.balanceC - i.designC) / (i.balanceC - i.measuredC))
    return { dutyFraction: Math.min(1, raw), saturated: raw > 1 }
  },
)

check(
  'panel-demand',
  fc.record({
    peakW: from0(50_000),
    mainA: above0(400),
    addedW: from0(9000),
    volts: above0(480),
    peakFactor: fc.double({ min: 1, max: 2, noNaN: true }),
  }),
  i => {
    const existingA = (1.25 * i.peakW * i.peakFactor) / i.volts
    const totalA = existingA + i.addedW / i.volts
    return { existingA, totalA, spareA: i.mainA - totalA, ok: i.mainA - totalA >= 0 }
  },
)

check(
  'runtime',
  fc.record({
    capacityWh: above0(1e5),
    startFraction: share,
    reserveFraction: share,
    deratingFraction: share1,
    idleW: above0(100),
    efficiencyFraction: share1,
    loadW: from0(5000),
  }),
  i => {
    if (i.reserveFraction >= i.startFraction) return undefined
    const usableWh = i.capacityWh * i.deratingFraction * (i.startFraction - i.reserveFraction)
    const batteryW = i.idleW + i.loadW / i.efficiencyFraction
    const hours = usableWh / batteryW
    return { usableWh, batteryW, hours, deliveredWh: hours * i.loadW, effectiveFraction: i.loadW / batteryW }
  },
)

check(
  'two-batteries',
  fc.record({
    unitWh: fc.tuple(above0(9000), above0(9000)),
    idleW: above0(60),
    efficiencyFraction: share1,
    legW: fc.tuple(from0(3000), from0(3000)),
    shared: fc.boolean(),
  }),
  i => {
    const [a, b] = i.unitWh
    const drawA = i.idleW + i.legW[0] / i.efficiencyFraction
    const drawB = i.idleW + i.legW[1] / i.efficiencyFraction
    if (i.shared) return { hours: (a + b) / (drawA + drawB), limitedBy: 'both', strandedWh: 0 }
    const hours = Math.min(a / drawA, b / drawB)
    if (Math.abs(a / drawA - b / drawB) <= 1e-9) return { hours, limitedBy: 'both', strandedWh: 0 }
    return a / drawA < b / drawB
      ? { hours, limitedBy: 'L1', strandedWh: b - hours * drawB }
      : { hours, limitedBy: 'L2', strandedWh: a - hours * drawA }
  },
)

check(
  'bank',
  fc.record(
    {
      unitV: above0(60),
      unitAh: above0(500),
      series: count,
      parallel: count,
      chemistry: fc.constantFrom('lfp', 'agm', 'flooded'),
      depthFraction: share,
      peukert: fc.double({ min: 1, max: 1.6, noNaN: true }),
      ratedHours: above0(100),
      idleW: from0(100),
      efficiencyFraction: share1,
      loadW: above0(5000),
    },
    {
      requiredKeys: [
        'unitV',
        'unitAh',
        'series',
        'parallel',
        'chemistry',
        'depthFraction',
        'idleW',
        'efficiencyFraction',
        'loadW',
      ],
    },
  ),
  i => {
    const usual = { lfp: 1.05, agm: 1.15, flooded: 1.25 }[i.chemistry] ?? 1
    const nominalV = i.unitV * i.series
    const capacityAh = i.unitAh * i.parallel
    const dischargeA = (i.idleW + i.loadW / i.efficiencyFraction) / nominalV
    const rate = (capacityAh / (dischargeA * (i.ratedHours ?? 20))) ** ((i.peukert ?? usual) - 1)
    const hours = ((i.depthFraction * capacityAh) / dischargeA) * Math.min(1, rate)
    return {
      nominalV,
      capacityAh,
      capacityWh: nominalV * capacityAh,
      dischargeA,
      hours,
      usableWh: hours * dischargeA * nominalV,
    }
  },
)

check(
  'capacity-test',
  fc.record(
    { ratedWh: above0(9000), deliveredWh: from0(9000), rechargeWh: above0(9000) },
    { requiredKeys: ['ratedWh', 'deliveredWh'] },
  ),
  i => {
    const { ratedWh, deliveredWh, rechargeWh } = i
    if (rechargeWh !== undefined && deliveredWh > rechargeWh) return undefined
    return {
      deliveredFraction: deliveredWh / ratedWh,
      roundTripFraction: rechargeWh === undefined ? null : deliveredWh / rechargeWh,
      chargeLossWh: rechargeWh === undefined ? null : rechargeWh - deliveredWh,
    }
  },
)

check(
  'refill',
  fc.record(
    {
      capacityWh: above0(20_000),
      fromFraction: share,
      toFraction: share,
      generatorW: from0(5000),
      chargerMaxW: above0(3000),
      chargerEfficiencyFraction: share1,
      houseW: from0(3000),
      WhPerGallon: above0(6000),
      tankGallons: above0(8),
    },
    {
      requiredKeys: [
        'capacityWh',
        'fromFraction',
        'toFraction',
        'generatorW',
        'chargerMaxW',
        'chargerEfficiencyFraction',
        'houseW',
      ],
    },
  ),
  i => {
    const chargeW = Math.min(i.chargerMaxW, i.generatorW - i.houseW)
    if (chargeW <= 0 || i.toFraction < i.fromFraction) return undefined
    const batteryW = chargeW * i.chargerEfficiencyFraction
    const hours = (i.capacityWh * (i.toFraction - i.fromFraction)) / batteryW
    const gallons = i.WhPerGallon === undefined ? null : ((i.houseW + chargeW) * hours) / i.WhPerGallon
    const tanks = gallons === null || i.tankGallons === undefined ? null : gallons / i.tankGallons
    return { chargeW, batteryW, hours, gallons, tanks }
  },
)

const negative = fc.double({ min: -1, max: -0.01, noNaN: true })
check(
  'solar-string',
  fc.record({
    module: fc.record(
      {
        stcW: above0(700),
        vocV: above0(80),
        vmpV: above0(70),
        iscA: above0(20),
        vocPctPerC: negative,
        vmpPctPerC: negative,
      },
      { requiredKeys: ['stcW', 'vocV', 'vmpV', 'iscA', 'vocPctPerC'] },
    ),
    series: count,
    parallel: count,
    recordLowC: degrees,
    hotCellC: degrees,
    input: fc.record({ minV: above0(200), maxV: above0(600), maxA: above0(40), maxW: from0(9000) }),
  }),
  i => {
    const m = i.module
    const coldVocV = i.series * m.vocV * (1 + (m.vocPctPerC / 100) * (i.recordLowC - 25))
    const hotVmpV =
      i.series * m.vmpV * (1 + ((m.vmpPctPerC ?? 1.35 * m.vocPctPerC) / 100) * (i.hotCellC - 25))
    const iscA = i.parallel * m.iscA
    const arrayW = i.series * i.parallel * m.stcW
    const inputW = Math.min(arrayW, i.input.maxW, i.input.maxA * i.series * m.vmpV)
    const faults: string[] = []
    if (coldVocV > i.input.maxV) faults.push('over-voltage')
    if (hotVmpV < i.input.minV) faults.push('under-voltage')
    if (iscA > i.input.maxA) faults.push('over-current')
    return { coldVocV, hotVmpV, iscA, arrayW, inputW, clippedFraction: 1 - inputW / arrayW, faults }
  },
)

check(
  'legs',
  fc.record(
    {
      arrangement: fc.constantFrom('one-leg', 'tied', 'split-phase', 'independent'),
      liveLeg: fc.constantFrom('L1', 'L2'),
      circuits: fc.array(
        fc.record({ id: fc.string(), leg: fc.constantFrom('L1', 'L2', 'both'), VA: from0(5000) }),
        { minLength: 1, maxLength: 8 },
      ),
      volts: above0(240),
    },
    { requiredKeys: ['arrangement', 'circuits'] },
  ),
  i => {
    const live = i.liveLeg ?? 'L1'
    const served = i.circuits.filter(c =>
      c.leg === 'both' ? i.arrangement === 'split-phase' : i.arrangement !== 'one-leg' || c.leg === live,
    )
    const amps = (leg: string) =>
      served.reduce((sum, c) => sum + (c.leg === leg ? c.VA : c.leg === 'both' ? c.VA / 2 : 0), 0) /
      (i.volts ?? 120)
    const [L1A, L2A] = [amps('L1'), amps('L2')]
    const neutralA =
      i.arrangement === 'split-phase'
        ? Math.abs(L1A - L2A)
        : i.arrangement === 'one-leg'
          ? amps(live)
          : L1A + L2A
    const most = Math.max(L1A, L2A)
    return {
      L1A,
      L2A,
      neutralA,
      served: served.map(c => c.id),
      unserved: i.circuits.filter(c => !served.includes(c)).map(c => c.id),
      imbalanceFraction: most === 0 ? 0 : Math.abs(L1A - L2A) / most,
    }
  },
)
