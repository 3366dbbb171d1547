import { dirname, join, resolve } from 'node:path'
import { z } from 'zod'
import type { BackupPlan } from './backup/plan.ts'
import { USUAL_LIMITS } from './limits.ts'
import { StartProblem } from './problem.ts'
import { LOG_LEVELS, type LogLevel } from './server-log.ts'

const DEFAULT_FILE = 'data/dogleg.sqlite'
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]']

const backupsKept = (name: string, usual: number) =>
  z.coerce
    .number(`${name} is a number.`)
    .int(`${name} is a whole number.`)
    .min(0, `${name} is 0 or more.`)
    .max(400, `${name} is at most 400.`)
    .default(usual)

const settings = z.object({
  DOGLEG_PORT: z.coerce.number('DOGLEG_PORT is a number.').int().min(0).max(65535).default(7080),
  DOGLEG_HOST: z.string().default('127.0.0.1'),
  DOGLEG_HOSTS: z.string().default(''),
  DOGLEG_AGENTS: z.string().default(''),
  DOGLEG_DATA: z.string().optional(),
  DOGLEG_HTTPS: z
    .enum(
      ['shop', ''],
      'DOGLEG_HTTPS is shop: with a certificate of the shop’s own. For another, set DOGLEG_CERT and DOGLEG_KEY.',
    )
    .optional(),
  DOGLEG_HTTPS_PORT: z.coerce.number('DOGLEG_HTTPS_PORT is a number.').int().min(0).max(65535).default(7443),
  DOGLEG_CERT: z.string().default(''),
  DOGLEG_KEY: z.string().default(''),
  DOGLEG_SIGN_IN: z
    .enum(
      ['network', 'always', ''],
      'DOGLEG_SIGN_IN is network or always: where people sign in. On a network it cannot be switched off.',
    )
    .optional(),
  DOGLEG_NEW: z
    .enum(
      ['ask', 'demo', 'empty', ''],
      'DOGLEG_NEW is ask, demo or empty: what there is where no logbook is yet.',
    )
    .optional(),
  DOGLEG_MOST_A_MINUTE: z.coerce
    .number('DOGLEG_MOST_A_MINUTE is a number.')
    .int()
    .min(60, 'DOGLEG_MOST_A_MINUTE is 60 or more: a page that is open asks so often.')
    .default(USUAL_LIMITS.aMinute),
  DOGLEG_LOG: z
    .enum(LOG_LEVELS, `DOGLEG_LOG is ${LOG_LEVELS.join(', ')}: how much the server's log says.`)
    .default('warn'),
  DOGLEG_BACKUPS: z.string().optional(),
  DOGLEG_BACKUP_DAYS: backupsKept('DOGLEG_BACKUP_DAYS', 14),
  DOGLEG_BACKUP_MONTHS: backupsKept('DOGLEG_BACKUP_MONTHS', 12),
  DOGLEG_NOW: z.iso.datetime('DOGLEG_NOW is a time such as 2026-01-31T09:30:00Z.').optional(),
})

export interface Config {
  port: number
  /** Address to listen on; the loopback unless told otherwise. */
  host: string
  /** Names that a Host header may carry. */
  hosts: Set<string>
  /** Those of them by which others reach it. */
  names: string[]
  /** Addresses (host:port) outside of the shop's network that may be asked for a machine's positions. */
  agents: Set<string>
  file: string
  /**
   * What a logbook that is not there yet is begun with; undefined where one is expected to be there. `ask`: it is begun when somebody sets
   * up a shop on the page; until then the demo is shown, which lies in a file of its own.
   */
  begins: 'ask' | 'demo' | 'empty' | undefined
  /** The logbook of the demo. */
  demo: string
  /**
   * Pages over https at a port of its own, by certificates of the shop's own in a folder, or by one from two files; on the other port
   * stands then what a tablet does first. Nothing for plain http.
   */
  https: ({ port: number } & ({ folder: string } | { cert: string; key: string })) | undefined
  /** Whether people sign in: everywhere but at one PC, and there where it is asked for. */
  signs: boolean
  /** Questions that one address may ask in a minute. */
  mostAMinute: number
  /** How much the server's log says. */
  log: LogLevel
  /** Where backups go, and how many of those that are made by themselves are kept. */
  backups: BackupPlan
  /** The time that the demo's history is computed back from, in ms since 1970. */
  demoNow: number
}

/** Addresses that mean all of this PC's, and are nobody's to type. */
const EVERYWHERE = ['0.0.0.0', '::', '[::]']

/** Whether only this PC reaches what listens there. */
const isLoopback = (name: string) =>
  LOOPBACK.includes(name) || name === '::1' || /^127(\.\d{1,3}){3}$/.test(name)

/** Reads the settings from the environment; throws StartProblem with a sentence. */
export function readConfig(environment: NodeJS.ProcessEnv, now: number): Config {
  const read = settings.safeParse(environment)
  if (!read.success)
    throw new StartProblem(read.error.issues[0]?.message ?? 'The settings are not understood.')
  const { DOGLEG_PORT, DOGLEG_HOST, DOGLEG_HOSTS, DOGLEG_AGENTS, DOGLEG_DATA, DOGLEG_NEW, DOGLEG_NOW } =
    read.data
  const file = resolve(DOGLEG_DATA ?? DEFAULT_FILE)
  const listed = (text: string) =>
    text
      .split(',')
      .map((name) => name.trim().toLowerCase())
      .filter(Boolean)
  const { DOGLEG_HTTPS, DOGLEG_HTTPS_PORT, DOGLEG_CERT, DOGLEG_KEY } = read.data
  if ((DOGLEG_CERT === '') !== (DOGLEG_KEY === ''))
    throw new StartProblem(
      'DOGLEG_CERT and DOGLEG_KEY belong together: the certificate and its key, as PEM files.',
    )
  if (DOGLEG_CERT !== '' && DOGLEG_HTTPS)
    throw new StartProblem('Set DOGLEG_HTTPS=shop, or DOGLEG_CERT and DOGLEG_KEY: not both.')
  const https =
    DOGLEG_CERT !== ''
      ? { port: DOGLEG_HTTPS_PORT, cert: resolve(DOGLEG_CERT), key: resolve(DOGLEG_KEY) }
      : DOGLEG_HTTPS
        ? { port: DOGLEG_HTTPS_PORT, folder: join(dirname(file), 'https') }
        : undefined
  const names = [DOGLEG_HOST.toLowerCase(), ...listed(DOGLEG_HOSTS)]
  return {
    port: DOGLEG_PORT,
    host: DOGLEG_HOST,
    hosts: new Set([...LOOPBACK, ...names].filter(Boolean)),
    names: [...new Set(names)].filter(
      (name) => name !== '' && !isLoopback(name) && !EVERYWHERE.includes(name),
    ),
    https,
    // A name of its own is one that others call it by, through something that stands before it.
    signs: read.data.DOGLEG_SIGN_IN === 'always' || !names.every(isLoopback),
    agents: new Set(listed(DOGLEG_AGENTS)),
    file,
    demo: join(dirname(file), 'demo.sqlite'),
    backups: {
      folder: resolve(read.data.DOGLEG_BACKUPS || join(dirname(file), 'backups')),
      days: read.data.DOGLEG_BACKUP_DAYS,
      months: read.data.DOGLEG_BACKUP_MONTHS,
    },
    // A name that was typed may be mistyped: only the usual place is begun without being told to.
    begins: DOGLEG_NEW || (DOGLEG_DATA === undefined ? 'ask' : undefined),
    mostAMinute: read.data.DOGLEG_MOST_A_MINUTE,
    log: read.data.DOGLEG_LOG,
    demoNow: DOGLEG_NOW ? Date.parse(DOGLEG_NOW) : now,
  }
}
