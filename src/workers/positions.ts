import { expose } from 'comlink'
import { positions } from './desks/positions'

expose(positions())
