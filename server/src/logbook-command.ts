import { createInterface } from 'node:readline/promises'
import { fileURLToPath } from 'node:url'
import { backup, beginAgain, restore } from './backup/commands.ts'
import { readConfig } from './config.ts'
import { StartProblem } from './problem.ts'
import { exportLogbook, importLogbook, verify } from './whole/commands.ts'

// npm run backup [FILE], restore FILE, begin-again, verify [FILE], export FILE and import FILE; the logbook is that of the settings.

// This file runs from server/src and, built, from server/dist: both lie beside migrations.
const migrations = fileURLToPath(new URL('../migrations', import.meta.url))
const [, , command, named] = process.argv
try {
  const now = Date.now()
  const { file, backups } = readConfig(process.env, now)
  if (command === 'verify') {
    const { says, good } = await verify(file, named, now)
    console.log(says)
    if (!good) process.exitCode = 1
  } else if (command === 'export') console.log(await exportLogbook(file, named))
  else if (command === 'import') console.log(await importLogbook(file, named, { now, migrations }))
  else if (command === 'restore') console.log(await restore(file, named, { now, migrations }))
  else if (command === 'begin-again') {
    const lines = createInterface({ input: process.stdin })
    const typed = lines[Symbol.asyncIterator]()
    const ask = async (question: string) => {
      process.stdout.write(question)
      const { value, done } = await typed.next()
      return done ? '' : String(value)
    }
    try {
      console.log(await beginAgain(file, { now, folder: backups.folder, ask }))
    } finally {
      lines.close()
    }
  } else console.log(await backup(file, named, { now, folder: backups.folder }))
} catch (error) {
  console.error(error instanceof StartProblem ? error.message : error)
  process.exitCode = error instanceof StartProblem ? 2 : 1
}
