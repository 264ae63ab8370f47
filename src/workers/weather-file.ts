import { expose } from 'comlink'
import { weatherFile } from './desks/weather-file'

expose(weatherFile())
