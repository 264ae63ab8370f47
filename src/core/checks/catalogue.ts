import { articles } from './articles'
import type { Severity } from './finding'

export const families = [
  'Grid and source apart',
  'Neutral, ground, bonding',
  'Voltage and legs',
  'Power and start',
  'Energy, sun, fuel',
  'Conductors and equipment',
  'Facts',
  'As proven',
] as const
export type Family = (typeof families)[number]

/** One check as a colleague or an inspector reads it: what is looked at, and how to make it speak. */
export interface CheckEntry {
  id: string
  /** the gravest it says */
  severity: Severity
  family: Family
  looks: string
  provoke: string
  /** the article, by the number of 2020; missing where none speaks */
  article?: string
}

type Row = [CheckEntry['id'], Severity, looks: string, provoke: string]

// biome-ignore format: one check a line, as a table
const rows: Record<Family, Row[]> = {
  'Grid and source apart': [
    ['transfer.missing', 'stop', 'whether anything makes paralleling with the utility impossible', 'Hook-up: backfed breaker or inlet with no interlock'],
    ['inlet.live', 'stop', 'whether an inlet’s pins can be live from the panel', 'Hook-up: backfed breaker or inlet with no interlock'],
    ['interlock.wrong-space', 'stop', 'the space of the backfed breaker against the end where the main stands', 'Interlocked inlet, backfed breaker planned at the far end'],
    ['interlock.not-listed', 'fix', 'the panel series that the interlock is made for', 'Choose an interlock made for another series'],
    ['interlock.no-main', 'stop', 'whether the panel has a main for the interlock to hold against', 'Interlocked inlet on a panel with main lugs only'],
    ['interlock.missing', 'ask', 'which interlock it is', 'Interlocked inlet, no interlock chosen'],
    ['interlock.limit', 'stop', 'the backfed breaker against what interlock, inlet and wire take', 'A 50 A backfed breaker behind a 30 A inlet'],
    ['backfeed.no-hold-down', 'fix', 'whether the plug-in breaker that is backfed is held down', 'Untick the hold-down of the backfed breaker'],
    ['pv.on-island', 'stop', 'grid-tied solar in a panel that is fed, picked or not, unless its breaker is locked off', 'Feed a whole panel that holds a solar breaker'],
    ['pv.not-found', 'ask', 'solar that the brief tells of against the breakers that are known', 'Ask: there is solar; no solar breaker in the panel'],
    ['appliance-cord.jurisdiction', 'mind', 'a fixed appliance that gets cord and plug', 'Hook-up: plug the appliance in'],
    ['cord.hard-wired', 'stop', 'loads that are wired in against a hook-up by cords', 'Extension cords, with a load that is hard-wired picked'],
    ['cord.permanent', 'fix', 'a flexible cord used as fixed wiring', 'Tick that a cord is fastened or goes through a wall'],
  ],
  'Neutral, ground, bonding': [
    ['bond.two', 'stop', 'neutral-to-ground bonds in force while the source runs, through everything that joins neutrals: more than one', 'A bonded unit, a bonding plug, or a bonded generator on an input that passes its neutral through, on a hook-up that switches hots only'],
    ['bond.none', 'stop', 'the same: none where one is needed', 'A floating unit on a switch that switches the neutral; a burner that proves flame, standing alone'],
    ['bond.gfci-trip', 'mind', 'ground-fault outlets of the unit against the house’s bond', 'A unit with ground-fault outlets on an interlocked inlet'],
    ['service.unbonded', 'stop', 'whether the service’s own neutral and ground are joined, where somebody looked', 'Panel facts of the main panel: neutral and ground found apart'],
    ['neutral.not-landed', 'stop', 'whether the neutral of the source reaches the panel', 'Say that the source’s neutral is left off'],
    ['ground.interrupted', 'stop', 'whether the equipment ground runs through the whole path', 'Say that the ground is interrupted'],
    ['subpanel.bonded', 'stop', 'neutral and ground in a panel that is fed from another', 'Tick “neutral and ground joined” in a sub-panel'],
    ['neutral.left-behind', 'stop', 'neutrals of circuits whose hots are led away; AFCI and GFCI breakers first', 'Pick an AFCI circuit for a switch or sub-panel and leave open where its neutral goes'],
    ['protection.lost', 'fix', 'AFCI and GFCI breakers that stay in the panel when their circuits are on the source', 'Pick a circuit on a GFCI breaker for a switch'],
    ['neutral.shared-overload', 'stop', 'the current in a shared neutral under this arrangement; on tied legs of a whole panel, of pairs that are not picked too', 'Tie both legs with a shared pair picked'],
    ['neutral.shared-split', 'stop', 'the two hots of a shared neutral: picked together, on neighbouring positions', 'Pick one half of a shared pair for a switch, or put the halves on far positions'],
    ['neutral.no-tie', 'fix', 'whether one handle opens both hots of a shared neutral', 'Pick a shared pair without a handle tie'],
    ['charge.loop', 'stop', 'what the source is charged from while it feeds the panel', 'Source: charged from a circuit of the panel it feeds'],
    ['passthrough.forbidden', 'stop', 'AC input of a unit whose instructions forbid it while its output is tied to a bonded neutral, by the scope of that ban', 'A unit that forbids it, with a generator on its input'],
    ['phantom.expected', 'mind', 'what a meter will show on a floating source', 'A floating unit standing alone'],
  ],
  'Voltage and legs': [
    ['v240.unserved', 'stop', 'picked two-pole circuits against an arrangement without 240 V', 'Tie both legs with a two-pole circuit picked'],
    ['v240.bridge', 'stop', 'two-pole breakers left on with one leg live', 'One live leg with a two-pole circuit picked'],
    ['leg.dead', 'fix', 'picked circuits on the leg that stays dead', 'One live leg with circuits picked on the other'],
    ['leg.overload', 'stop', 'what runs together on a leg against its share', 'Split phase with more on one leg than its share'],
    ['leg.imbalance', 'mind', 'how far apart the legs are', 'Split phase with everything on one leg'],
    ['y-adapter', 'stop', 'two units that nothing synchronises, presented as 240 V', 'Two units, not synchronised, with a 240 V circuit picked, or a plain Y'],
    ['autotransformer.limit', 'stop', 'load through the autotransformer, whole and on the leg that it makes', 'Autotransformer with more than its rating'],
    ['autotransformer.idle', 'mind', 'the transformer’s own draw, in hours of run time', 'Arrangement: autotransformer'],
    ['tandem.same-leg', 'mind', 'both halves of a tandem on one leg', 'Pick both halves of a tandem'],
    ['panel.not-fed', 'stop', 'picked circuits in a panel that the source does not reach', 'Pick a circuit of a panel that is not fed from the tied one'],
  ],
  'Power and start': [
    ['power.over', 'stop', 'watts that run together against outlet, leg and total', 'Pick more than the source gives'],
    ['va.over', 'stop', 'the same in volt-amps', 'Loads of poor power factor near the limit'],
    ['branch.overload', 'fix', 'what a circuit’s own loads draw together against its breaker; four fifths of it for what runs for three hours or more', 'Two heaters on one 15 A circuit'],
    ['start.over', 'stop', 'the worst start on top of what runs, and locked-rotor amps', 'A motor whose start exceeds the surge'],
    ['start.together', 'mind', 'two motors that may start in the same second', 'Two motors that start alone but not together'],
    ['pair.avoid', 'mind', 'loads switched by hand that must not run together', 'Two by-hand loads that exceed the output together'],
    ['battery.over-current', 'stop', 'amps that the bank gives and takes against its batteries and its fuse, running, starting and charging', 'Give the bank a fuse far below what runs'],
    ['transfer.limit', 'stop', 'what passes through an inverter’s own transfer on the utility, charging on top', 'An automatic hook-up with more on a leg than the transfer carries'],
    ['auto.full-load', 'fix', 'everything on an automatic hook-up that does not shed', 'Critical-load sub-panel with more on it than the source carries'],
    ['idle.dominates', 'mind', 'the source’s own draw against the energy', 'A small load on a large inverter'],
    ['compressor.wait', 'mind', 'compressors that are transferred while warm', 'Pick a refrigerator'],
  ],
  'Energy, sun, fuel': [
    ['energy.short', 'stop', 'hours that the picked circuits last against the hours asked', 'Ask for more hours than the store has'],
    ['energy.reserve', 'mind', 'whether the plan eats into the reserve', 'Hours that only the reserve covers'],
    ['energy.cold', 'stop', 'where the battery stands against its limits for charging and working', 'Give a coldest temperature below freezing where lithium stands, and an array'],
    ['store.none', 'mind', 'a source that stores nothing', 'A generator as the only unit'],
    ['solar.over-voltage', 'stop', 'string volts at record cold against the input', 'Too many modules in series'],
    ['solar.record-cold', 'ask', 'whether the record cold of the place is said: asked, or from a weather file', 'An array, and the record low not said'],
    ['solar.under-voltage', 'fix', 'string volts with hot cells against where the input begins', 'Too few modules in series'],
    ['solar.clipped', 'mind', 'modules against what input and charge mode take', 'More modules than the input takes, or a mode that throttles solar'],
    ['generator.too-small', 'mind', 'charging and house against the generator', 'A fast charge mode on a small generator'],
    ['generator.indoors', 'stop', 'where the generator runs', 'Say that it runs indoors'],
    ['generator.quiet', 'mind', 'its hours against quiet hours', 'Let it run at night where quiet was asked'],
  ],
  'Conductors and equipment': [
    ['wire.small', 'stop', 'breaker against conductor, of picked circuits, runs and the path; of a motor or air conditioner its plate: MCA for the wire, MOP for the breaker', 'A 30 A breaker on 14 AWG'],
    ['wire.derate', 'fix', 'more than three current-carrying conductors together', 'Ten circuits through one conduit, not derated'],
    ['conduit.overfull', 'fix', 'fill of each conduit', 'Many conductors in a 1/2 in conduit'],
    ['box.overfull', 'fix', 'fill of the smallest box of a run', 'More conductors than the box takes'],
    ['ground.missing', 'stop', 'whether an equipment ground goes with each run, where its raceway is none', 'A run in plastic conduit without a ground'],
    ['ground.unknown', 'ask', 'the same, where nobody said', 'A run of which the ground is not said'],
    ['ground.small', 'fix', 'equipment ground against the breaker, enlarged in step with its hots', 'A 14 AWG ground behind 30 A'],
    ['drop.high', 'stop', 'volts at the far end of the path', 'A long thin cord'],
    ['path.overload', 'stop', 'what flows through each link of the path, and the switch’s input, with everything on together, where nothing ahead opens', 'A thin wire behind an outlet without a breaker'],
    ['cord.weak-link', 'stop', 'each link against the breaker ahead of it', 'A 20 A cord on a 30 A outlet'],
    ['cord.no-mate', 'stop', 'whether each plug goes into what stands before it', 'A cord whose plug the outlet does not take'],
    ['cord.unlisted', 'fix', 'cords and adapters that are not listed', 'Untick “listed” of a link'],
    ['position.limit', 'stop', 'a circuit’s breaker against the one of its switch position', 'Pin a 20 A circuit on a 15 A position'],
    ['position.protects', 'stop', 'the breaker of a position against what the circuit’s own wire may carry: on the source nothing else protects it', 'Pin a 15 A circuit on a 30 A position'],
    ['position.bridged', 'fix', 'two circuits on what is one breaker with a common trip inside', 'Two single circuits on a bridged pair of a switch'],
    ['switch.volts', 'stop', 'the volts that a switch is made for against its circuits', 'A 240 V circuit on a switch for 120 V'],
    ['splice.metals', 'fix', 'metals of the circuits that are led away', 'Pick a circuit wired in aluminum for a switch or sub-panel'],
    ['position.none', 'stop', 'picked circuits without a position', 'Pick more circuits than the switch has positions'],
    ['input.limit', 'fix', 'all positions of a leg against the switch’s input', 'Everything on one leg of a small switch'],
    ['breaker.brand', 'fix', 'breaker types against the sticker', 'A type that the sticker does not list'],
    ['breaker.common-trip', 'mind', 'a common trip taken for two singles', 'Pick one half of it'],
    ['breaker.above-plate', 'fix', 'breaker against the largest that a nameplate allows', 'A plate that says 15 A on a 20 A circuit'],
    ['panel.no-space', 'fix', 'spaces needed against spaces free, beside the main', 'Interlock on a full panel'],
    ['panel.capacity', 'stop', 'the year’s demand with what charges from the panel on top, by its mode, for hours at 125 %, against the main', 'A high demand and a charger'],
    ['panel.bus', 'fix', 'main and what feeds in against the bus: 120 % at the end opposite the main, else the sums', 'Solar of 60 A on a full bus'],
    ['tandem.not-listed', 'fix', 'tandems against the spaces that take them', 'A tandem elsewhere'],
    ['whip.reach', 'mind', 'leads of the switch against the positions of its breakers', 'A whip of 8 in'],
    ['working-space', 'fix', 'clear depth in front of panels', '32 in in front of a panel'],
    ['mount.wet', 'fix', 'what is rated for indoors and hangs in the wet', 'A switch for indoors beside a wet panel'],
  ],
  Facts: [
    ['circuit.unverified', 'ask', 'picked circuits that no one has seen die', 'Pick a circuit that is not traced'],
    ['circuit.double-labelled', 'ask', 'labels that stand twice', 'Two circuits of one name'],
    ['circuit.no-load-found', 'ask', 'breakers with which nothing died', 'Trace: nothing died'],
    ['load.missing', 'ask', 'picked circuits with no load entered', 'Pick a circuit without loads'],
    ['load.unmeasured', 'ask', 'loads that decide the size on a guess', 'A large load with a typical value'],
    ['load.weather', 'ask', 'readings taken in other weather', 'A heater measured on a mild day'],
    ['load.saturated', 'mind', 'heaters that run all the time and fall short', 'A much colder outage'],
    ['nameplate.missing', 'ask', 'motors without a start figure', 'A motor without one'],
    ['nameplate.impossible', 'ask', 'plates that cannot be', '900 W at 1 A and 120 V'],
    ['photo.missing', 'ask', 'photographs asked and not here', 'Leave a request open'],
    ['interval-data.missing', 'ask', 'a year of utility data, or a demand', 'Leave the request open'],
    ['utility.doubt', 'ask', 'loads against what the utility metered', 'Loads above the house’s own year'],
    ['neutral.unknown', 'ask', 'picked circuits whose neutral nobody looked at', 'Pick one'],
    ['source-bond.unknown', 'ask', 'units whose neutral is not stated; what joins neutrals, where it decides the count', 'A unit whose datasheet is silent'],
    ['switch-neutral.unknown', 'ask', 'a hook-up that is not decided', 'Hook-up: not decided yet'],
    ['plan.hindered', 'fix', 'planned changes against the house as found', 'Plan a move, then enter a breaker where it was to go'],
    ['utility-return.blind', 'mind', 'whether anything tells that the utility is back', 'Interlocked inlet without an indicator'],
  ],
  'As proven': [
    ['test.failed', 'stop', 'tests that failed when they were read last, and were not mended since', 'Tests: write down volts of a dead leg'],
    ['measured.watts', 'mind', 'watts of a circuit as it came on against its loads', 'Tests: write down half as much again'],
    ['measured.start', 'mind', 'the largest start as it was read against its figure', 'Tests: a start far above the plate'],
    ['measured.volts', 'mind', 'volts at a far outlet, loaded, against what its wires leave', 'Tests: a far outlet that falls by 8 V'],
    ['measured.capacity', 'mind', 'watt-hours of a capacity test against what the design reckons with', 'Tests: a unit that delivers four fifths'],
    ['measured.transfer', 'mind', 'seconds in the dark against what the sheet says', 'Tests: an automatic system that takes 8 s'],
    ['inspection.remark', 'fix', 'remarks of the inspection that are not corrected', 'Tests: write down a remark'],
  ],
}

/** Every check there is, by family. */
export const checkCatalogue: readonly CheckEntry[] = families.flatMap(family =>
  rows[family].map(([id, severity, looks, provoke]) => {
    const article = articles[id]
    return { id, severity, family, looks, provoke, ...(article && { article }) }
  }),
)
