/** Families of parts that a list can hold, by how their keys begin; a device of the catalogue has its own id. A row for each. */
const families: readonly RegExp[] = [
  /^(wire|cable)-(cu|al)-[\d-]+-[a-z]+$/,
  /^raceway-[A-Z0-9-]+$/,
  /^(connector|connector-raintight|coupling|strap|elbow|body)-[A-Z0-9-]+$/,
  /^(bushing|lug)-[\d-]+$/,
  /^(twist|lever|tap)-/,
  /^breaker-[12]p-\d+/,
  /^position-breaker-\d+$/,
  /^(breaker-lock|handle-tie|hold-down|filler|bonding-jumper|ground-bar)$/,
  /^panel-\d+-/,
  /^(disconnect|inlet)-/,
  /^box-/,
  /^(receptacle|cover-plate|soft-starter)/,
  /^(cord|adapter)-/,
  /^(label-sheet|directory-card|notice|wire-markers)$/,
  /^(tape-[a-z]+|anti-oxidant|fire-stop|mounting-screws|connector-chosen)$/,
]

/** Whether any list of parts may ask for it; `devices` are the ids of the catalogue. */
export const isKnownPart = (key: string, devices: ReadonlySet<string>): boolean =>
  families.some(f => f.test(key)) || devices.has(key.replace(/\/expansion$/, ''))
