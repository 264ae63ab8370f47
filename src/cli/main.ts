import { run } from './commands'

run(process.argv.slice(2)).then(status => {
  process.exitCode = status
})
