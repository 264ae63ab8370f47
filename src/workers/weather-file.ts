import { expose } from 'comlink'
import { readWeather } from '@/core/formats/weather-file'

/** Reads one weather file after another off the main thread. */
const weatherFile = { read: async (file: File) => readWeather(await file.text(), file.name) }
export type WeatherFile = typeof weatherFile

expose(weatherFile)
