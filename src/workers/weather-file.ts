import { readWeather } from '@/core/formats/weather-file'

/** Reads one weather file after another off the main thread. */
addEventListener('message', async ({ data }: MessageEvent<File>) => {
  postMessage(readWeather(await data.text(), data.name))
})
