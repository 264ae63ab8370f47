import { freshet18 } from '../equipment/fixtures/parts'
import { station } from '../job/fixtures/jobs'
import { ownedFirst } from './owned'

test('what the brief says the customer has comes first: by name, by watts, by kind', () => {
  const units = [
    station({ name: 'Larger', continuousW: 2000 }),
    station({ name: 'Smaller', continuousW: 1500 }),
    freshet18,
  ]
  const first = (brief: object) => ownedFirst(units, { wants: [], ...brief })[0]?.name
  expect(first({})).toBe('Larger')
  expect(first({ station: 'yes', stationWhat: 'An older one, 1,500 W' })).toBe('Smaller')
  expect(first({ generator: 'yes', generatorW: 1800 })).toBe('generator-18')
  expect(first({ generator: 'yes', generatorW: 5000 })).toBe('Larger')
})
