import { type ChildProcess, fork } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import type { CopyAsked, CopyTold } from '../backup/backup-jobs.ts'
import { Problem, StartProblem } from '../problem.ts'
import type { JudgeAsked, Judged, SimulateAsked, Simulated } from './program-jobs.ts'
import type * as recordJobs from './record-jobs.ts'

// This file runs from server/src/threads and, built, from server/dist: the jobs are built.
const built = (name: string) =>
  fileURLToPath(
    new URL(import.meta.url.endsWith('.ts') ? `../../dist/${name}` : `./${name}`, import.meta.url),
  )

export interface ThreadLimits {
  /** Threads that run programs. */
  threads: number
  /** How long one program may take to be worked out, in ms. */
  program: number
  /** Programs that wait for a thread. */
  waiting: number
}

export const USUAL_THREADS: ThreadLimits = { threads: 2, program: 5000, waiting: 200 }

/** What the thread of the logs does, and what each job comes to. */
type RecordJobs = Omit<typeof recordJobs, 'follow'>
type Outcome<Job extends keyof RecordJobs> = Awaited<ReturnType<RecordJobs[Job]>>
type TextBy<Job extends keyof RecordJobs> = Extract<Outcome<Job>, { text: unknown }>['text']
type Refusal = Extract<Outcome<keyof RecordJobs>, { problem: unknown }>

/** A program took longer than it may; its thread was ended. */
export class TooLong extends Error {}

/** The threads of a server: those that run programs, each of which may be ended, and one that reads and writes logs. */
export function startThreads({ threads, program, waiting }: ThreadLimits = USUAL_THREADS) {
  const programs = new Piscina({
    filename: built('program-jobs.js'),
    minThreads: 0,
    maxThreads: threads,
    maxQueue: waiting,
    idleTimeout: 60_000,
  })
  const backups = new Set<ChildProcess>()
  const records = new Piscina({ filename: built('record-jobs.js'), minThreads: 1, maxThreads: 1 })

  const runProgram = async <T>(name: string, asked: object): Promise<T> => {
    if (programs.queueSize >= waiting)
      throw new Problem(503, 'busy', 'Too many programs are being worked out. Try again in a moment.')
    const signal = AbortSignal.timeout(program)
    try {
      return await programs.run(asked, { name, signal })
    } catch (error) {
      if (signal.aborted) throw new TooLong()
      throw error
    }
  }

  return {
    /** @throws TooLong */
    simulate: (asked: SimulateAsked) => runProgram<Simulated>('simulate', asked),
    /** @throws TooLong */
    judge: (asked: JudgeAsked) => runProgram<Judged>('judge', asked),
    /** The answer to a question about the logbook, as the text of it. Throws the refusal. */
    record: async <Job extends keyof RecordJobs>(
      job: Job,
      asked: Parameters<RecordJobs[Job]>[0],
      transfer: ArrayBuffer[] = [],
    ): Promise<TextBy<Job>> => {
      const found: { text: TextBy<Job> } | Refusal = await records.run(asked, {
        name: job,
        transferList: transfer,
      })
      if ('text' in found) return found.text
      const { status, body } = found.problem
      const { code, says, detail } = body.error
      throw new Problem(status, code, says, detail)
    },
    /** Reads a logbook through to its end, a moment at a time, so that questions have their turn in between. */
    follow: async (asked: Parameters<typeof recordJobs.follow>[0]): Promise<void> => {
      for (;;) {
        const { more }: Awaited<ReturnType<typeof recordJobs.follow>> = await records.run(asked, {
          name: 'follow',
        })
        if (!more) return
      }
    },
    /** Makes a backup; the signal ends it. Throws why it could not. */
    backup: async (asked: CopyAsked, signal: AbortSignal): Promise<void> => {
      const told = await copyApart(backups, asked, signal)
      if ('why' in told) throw new StartProblem(told.why)
      if ('failed' in told) throw new Error(told.failed)
    },
    programsLimit: program,
    close: async () => {
      await records.close()
      await programs.destroy()
      for (const child of backups) child.kill('SIGKILL')
    },
  }
}

/** Makes a copy in a process of its own; the signal ends it. */
function copyApart(running: Set<ChildProcess>, asked: CopyAsked, signal: AbortSignal): Promise<CopyTold> {
  return new Promise((resolve, reject) => {
    const child = fork(built('backup-jobs.js'), { execArgv: [], signal, killSignal: 'SIGKILL' })
    running.add(child)
    child.once('message', (told) => resolve(told as CopyTold))
    // One that is ended is waited for: until then it may still write.
    child.once('error', (error) => child.pid === undefined && reject(error))
    child.once('exit', (code, ended) => {
      running.delete(child)
      // Where it was told how it went, this says nothing more.
      reject(new Error(`Making the backup ended with ${ended ?? code}.`))
    })
    child.send(asked)
  })
}
export type Threads = ReturnType<typeof startThreads>
