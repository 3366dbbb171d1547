import { createInterface } from 'node:readline/promises'
import { fileURLToPath } from 'node:url'
import { backup, beginAgain, restore } from './backup/commands.ts'
import { readConfig } from './config.ts'
import { peopleCommand } from './people/commands.ts'
import { StartProblem } from './problem.ts'
import { exportLogbook, importLogbook, verify } from './whole/commands.ts'

// npm run backup [FILE], restore FILE, begin-again, people [WHAT], verify [FILE], export FILE and import FILE; the logbook is that of the settings.

// This file runs from server/src and, built, from server/dist: both lie beside migrations.
const migrations = fileURLToPath(new URL('../migrations', import.meta.url))
const [, , command, ...words] = process.argv
const [named] = words

/** Does something that asks whoever is at the keyboard; undefined where nobody answers any more. */
async function atKeyboard(does: (ask: (question: string) => Promise<string | undefined>) => Promise<void>) {
  const lines = createInterface({ input: process.stdin })
  const typed = lines[Symbol.asyncIterator]()
  try {
    await does(async (question) => {
      process.stdout.write(question)
      const { value, done } = await typed.next()
      return done ? undefined : String(value)
    })
  } finally {
    lines.close()
  }
}

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
  else if (command === 'begin-again')
    await atKeyboard(async (ask) => {
      const answer = async (question: string) => (await ask(question)) ?? ''
      console.log(await beginAgain(file, { now, folder: backups.folder, ask: answer }))
    })
  else if (command === 'people')
    await atKeyboard((ask) =>
      peopleCommand(file, words, { now: Date.now, migrations, say: console.log, ask }),
    )
  else console.log(await backup(file, named, { now, folder: backups.folder }))
} catch (error) {
  console.error(error instanceof StartProblem ? error.message : error)
  process.exitCode = error instanceof StartProblem ? 2 : 1
}
