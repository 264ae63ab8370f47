/** Kinds of house that every firm may start from, by name. */
export const houseNames = [
  { id: 'well-and-furnace', name: 'House with a well and a gas furnace, a winter’s night and day' },
  { id: 'medical', name: 'Flat with a medical device, three summer days' },
  { id: 'shop', name: 'Small shop, a working day' },
] as const
export type HouseId = (typeof houseNames)[number]['id']
export const houseIds = houseNames.map(h => h.id) as [HouseId, ...HouseId[]]
