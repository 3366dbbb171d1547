import { backup, restore } from './backup/commands.ts'
import { readConfig } from './config.ts'
import { StartProblem } from './problem.ts'

// npm run backup [FILE] and npm run restore FILE; the logbook is that of the settings.

const [, , command, file] = process.argv
try {
  const now = Date.now()
  const { file: logbook } = readConfig(process.env, now)
  console.log(await (command === 'restore' ? restore(logbook, file, now) : backup(logbook, file, now)))
} catch (error) {
  console.error(error instanceof StartProblem ? error.message : error)
  process.exitCode = error instanceof StartProblem ? 2 : 1
}
