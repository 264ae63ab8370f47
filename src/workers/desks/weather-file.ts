import { readWeather } from '@/core/formats/weather-file'

/** Reads one weather file after another off the main thread. */
export const weatherFile = () => ({ read: async (file: File) => readWeather(await file.text(), file.name) })
export type WeatherFile = ReturnType<typeof weatherFile>
