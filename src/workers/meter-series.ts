import { expose } from 'comlink'
import { meterReadings } from './desks/meter-readings'

expose(meterReadings())
