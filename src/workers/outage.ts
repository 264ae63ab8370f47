import { expose } from 'comlink'
import { simulation } from './desks/simulation'

expose(simulation())
