/**
 * Things that people ask for, in their words: what each is in the library of loads, and the one question about it that moves the
 * answer most. A row for each. How often each answer is the true one is our assumption, as told with the answer.
 */
export interface Thing {
  id: string
  name: string
  /** other words that people use for it */
  words: string
  /** missing: there is nothing to ask */
  ask?: string
  options: readonly [ThingOption, ...ThingOption[]]
}

export interface ThingOption {
  id: string
  label: string
  /** entries of the library that it comes to: several, where several run for it */
  typical: readonly string[]
  /** share of the houses that say so */
  share: number
}

const option = (id: string, label: string, share: number, ...typical: string[]): ThingOption => ({
  id,
  label,
  typical,
  share,
})
const thing = (
  id: string,
  name: string,
  words: string,
  ask: string,
  ...options: [ThingOption, ...ThingOption[]]
): Thing => ({ id, name, words, ask, options })
const plain = (id: string, name: string, words: string, ...typical: string[]): Thing => ({
  id,
  name,
  words,
  options: [option('it', name, 1, ...typical)],
})

// biome-ignore format: a table is read by its rows
export const things: readonly Thing[] = [
  thing('well-pump', 'Well pump', 'well pump water submersible', 'How deep is the well?',
    option('medium', '25 to 200 ft', 0.4, 'well-pump-1-2-hp'),
    option('deep', 'deeper than 200 ft', 0.35, 'well-pump-1-hp'),
    option('shallow', 'less than 25 ft, a jet pump', 0.15, 'jet-pump-shallow-well'),
    option('drive', 'constant pressure, with a drive', 0.1, 'well-pump-variable-speed')),
  thing('heat', 'Heating', 'heat heating furnace boiler burner blower warm', 'What makes the heat?',
    option('furnace', 'gas furnace, blower at one speed', 0.4, 'gas-furnace-single-stage'),
    option('furnace-ecm', 'gas furnace, variable blower', 0.15, 'gas-furnace-variable-blower'),
    option('boiler', 'gas boiler with two circulators', 0.2, 'gas-boiler-controls-and-fan', 'circulator-pump-fixed-speed', 'circulator-pump-fixed-speed'),
    option('oil', 'oil burner with a circulator', 0.1, 'oil-burner', 'circulator-pump-fixed-speed'),
    option('mini-split', 'mini-split heat pump', 0.08, 'mini-split-heat-pump-one-head'),
    option('pellet', 'pellet stove', 0.07, 'pellet-stove')),
  thing('refrigerator', 'Refrigerator', 'refrigerator fridge icebox cold food', 'Which kind?',
    option('full', 'full size', 0.6, 'refrigerator-full-size'),
    option('variable', 'recent, variable speed', 0.3, 'refrigerator-variable-speed'),
    option('small', 'small', 0.1, 'refrigerator-small')),
  thing('freezer', 'Freezer', 'freezer deep cold food', 'Which kind?',
    option('chest', 'chest', 0.55, 'chest-freezer'),
    option('upright', 'upright', 0.45, 'upright-freezer')),
  thing('oxygen', 'Oxygen concentrator', 'oxygen concentrator breathing medical', 'Which kind?',
    option('home', 'stands in the room, runs on', 0.75, 'oxygen-concentrator-home'),
    option('portable', 'portable, charged', 0.25, 'oxygen-concentrator-portable')),
  plain('cpap', 'CPAP', 'cpap sleep apnea breathing medical', 'cpap-with-humidifier'),
  plain('medicine', 'Medicine refrigerator', 'medicine insulin medical refrigerator fridge', 'medicine-refrigerator'),
  thing('sump', 'Sump pump', 'sump pump basement flood', 'How large?',
    option('third', '1/3 hp', 0.6, 'sump-pump-1-3-hp'),
    option('half', '1/2 hp', 0.4, 'sump-pump-1-2-hp')),
  thing('sewage', 'Septic or sewage pump', 'septic sewage effluent ejector waste pump', 'Which one?',
    option('effluent', 'septic tank’s effluent pump', 0.6, 'septic-effluent-pump'),
    option('ejector', 'ejector in the basement', 0.4, 'sewage-ejector-pump')),
  thing('hot-water', 'Hot water', 'hot water heater tank tankless shower', 'What makes it?',
    option('tank', 'electric tank', 0.4, 'electric-water-heater-tank'),
    option('tankless', 'gas, tankless', 0.25, 'tankless-water-heater-gas'),
    option('vent', 'gas tank with a fan', 0.2, 'gas-water-heater-power-vent'),
    option('heat-pump', 'heat pump tank', 0.15, 'heat-pump-water-heater')),
  thing('cooling', 'Air conditioning', 'air conditioning conditioner ac cooling cool', 'Which kind?',
    option('window', 'one window unit', 0.4, 'window-air-conditioner-small'),
    option('window-large', 'a large window unit', 0.25, 'window-air-conditioner-large'),
    option('central', 'central, some 3 tons', 0.2, 'central-air-conditioner-3-ton'),
    option('mini-split', 'mini-split, one head', 0.15, 'mini-split-cooling-one-head')),
  thing('mini-split', 'Mini-split', 'mini split heat pump head', 'Does it heat or cool in such an outage?',
    option('heats', 'it heats', 0.6, 'mini-split-heat-pump-one-head'),
    option('cools', 'it cools', 0.4, 'mini-split-cooling-one-head')),
  thing('lights', 'Lights', 'lights lamps lighting light', 'How much of the house?',
    option('floor', 'a whole floor', 0.5, 'led-lights-whole-floor'),
    option('room', 'a room or two', 0.3, 'led-lights-one-room', 'led-lights-one-room'),
    option('two-floors', 'two floors', 0.2, 'led-lights-whole-floor', 'led-lights-whole-floor')),
  thing('internet', 'Internet', 'internet router wifi modem network', 'By cable or by fiber?',
    option('cable', 'router and modem', 0.6, 'router-and-modem'),
    option('fiber', 'router and fiber terminal', 0.4, 'router-and-modem', 'fiber-terminal')),
  thing('cooking', 'Cooking', 'cooking cook stove range oven hob kitchen', 'On what?',
    option('microwave', 'a microwave oven', 0.45, 'microwave-oven'),
    option('gas', 'a gas range with its igniter', 0.25, 'gas-range-controls-and-igniter'),
    option('plate', 'a portable induction plate', 0.2, 'induction-plate-portable'),
    option('element', 'one element of an electric range', 0.1, 'electric-range-one-element')),
  thing('washer', 'Washing machine', 'washing machine washer clothes laundry', 'Loaded from where?',
    option('front', 'the front', 0.5, 'washing-machine-front-load'),
    option('top', 'the top', 0.5, 'washing-machine-top-load')),
  thing('dryer', 'Dryer', 'dryer clothes laundry', 'Gas or electric?',
    option('electric', 'electric', 0.7, 'electric-dryer'),
    option('gas', 'gas', 0.3, 'gas-dryer')),
  thing('computer', 'Computer', 'computer pc laptop work office desk', 'Which kind?',
    option('laptop', 'laptop', 0.7, 'laptop'),
    option('desktop', 'desktop and screen', 0.3, 'desktop-computer-and-screen')),
  thing('vehicle', 'Vehicle charger', 'vehicle charger ev car', 'At which voltage?',
    option('240', '240 V', 0.6, 'vehicle-charger-240-v'),
    option('120', '120 V', 0.4, 'vehicle-charger-120-v')),
  plain('television', 'Television', 'television tv', 'television'),
  plain('phones', 'Phone charging', 'phone phones cell mobile charging', 'phone-charging'),
  plain('outlets', 'A few outlets', 'outlets receptacles plugs room', 'room-outlets-light-use'),
  plain('garage', 'Garage door', 'garage door opener', 'garage-door-opener'),
  plain('alarm', 'Alarm and cameras', 'alarm security camera cameras', 'alarm-panel-and-cameras'),
  plain('stair-lift', 'Stair lift', 'stair lift mobility chair', 'stair-lift'),
  plain('fan', 'Ceiling fan', 'ceiling fan fans', 'ceiling-fan'),
]

export const thingOf = (id: string | undefined): Thing | undefined => things.find(t => t.id === id)

/** The option that was answered; while nobody did, undefined. */
export const answeredOf = (thing: Thing, answers: Readonly<Record<string, string>> = {}) =>
  thing.options.length === 1 ? thing.options[0] : thing.options.find(o => o.id === answers.kind)

/** The option that is taken until somebody answers: the commonest. */
export const likeliest = ({ options }: Thing): ThingOption =>
  options.reduce((best, o) => (o.share > best.share ? o : best))
