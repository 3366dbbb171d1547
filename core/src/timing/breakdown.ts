import { type Motion, ROW } from '../program/index.ts'
import type { CycleTime, TimeParts } from './cycle-time.ts'
import type { MachineSpeeds } from './machine-speeds.ts'

export const noTime = (): TimeParts => ({
  cutting: 0,
  rapid: 0,
  toolChange: 0,
  dwell: 0,
  spindle: 0,
  tappingOut: 0,
  probing: 0,
})

export const totalOf = (parts: TimeParts) => Object.values(parts).reduce((sum, part) => sum + part, 0)

/** The time of a stretch of the text: its lines, from 1, the tool that runs there, and what it is called. */
export interface TimeSection {
  from: number
  to: number
  tool: number
  /** The comment that stands over it; empty where there is none. */
  title: string
  seconds: number
  parts: TimeParts
}

export interface ToolTime {
  tool: number
  seconds: number
  parts: TimeParts
}

/** More sections than these are not told apart: only tool changes begin one. */
const MOST_SECTIONS = 40

/** What the seconds of a row are spent on. A tool change also stops the spindle. */
function addRow(parts: TimeParts, motion: Motion, row: number, seconds: number, speeds: MachineSpeeds): void {
  const kind = motion.kind[row] as number
  if (kind === ROW.RAPID) parts.rapid += seconds
  else if (kind === ROW.PROBE) parts.probing += seconds
  else if (kind === ROW.TAP_OUT) parts.tappingOut += seconds
  else if (kind !== ROW.EVENT) parts.cutting += seconds
  else {
    const event = motion.events[motion.aux[row] as number]
    if (event?.does === 'dwell') parts.dwell += seconds
    else if (event?.does === 'tool') {
      const change = Math.min(seconds, speeds.toolChange)
      parts.toolChange += change
      parts.spindle += seconds - change
    } else parts.spindle += seconds
  }
}

const COMMENT_LINE = /^\s*(?:N\d+\s*)?(?:\(([^)]*)\)|;(.*))\s*$/i

/** Where sections begin: at tool changes, and at a comment that has a line of its own; with their titles. */
function beginnings(text: string, motion: Motion): Map<number, string> {
  const changes = new Set<number>()
  for (let row = 0; row < motion.count; row++)
    if (motion.kind[row] === ROW.EVENT && motion.events[motion.aux[row] as number]?.does === 'tool')
      changes.add(motion.line[row] as number)
  const titles = new Map<number, string>([...changes].map((line) => [line, '']))
  const comments = new Map<number, string>()
  let line = 1
  let before = false
  for (let at = 0; at < text.length && comments.size <= MOST_SECTIONS; line++) {
    const newline = text.indexOf('\n', at)
    const end = newline < 0 ? text.length : newline
    // A long line is no comment that stands over anything.
    const found = end - at < 200 ? COMMENT_LINE.exec(text.slice(at, end)) : null
    const words = (found?.[1] ?? found?.[2])?.trim()
    if (words && !before) comments.set(line, words)
    before = words !== undefined && words !== ''
    at = end + 1
  }
  if (comments.size > MOST_SECTIONS) return titles
  for (const [at, words] of comments) {
    titles.set(at, words)
    // A comment over a tool change is what the change is for.
    titles.delete(at + 1)
  }
  return titles
}

/**
 * Where the time of a program goes: by stretch of the text and by tool, each by kind. The seconds of all sections together,
 * and of all tools, are those of the program. `time` must be that of the motion, on these speeds.
 */
export function whereTimeGoes(
  text: string,
  motion: Motion,
  time: CycleTime,
  speeds: MachineSpeeds,
): { sections: TimeSection[]; tools: ToolTime[] } {
  const titles = beginnings(text, motion)
  const starts = [...titles.keys()].sort((a, b) => a - b)
  const sections = new Map<number, TimeSection>()
  const tools = new Map<number, ToolTime>()
  for (let row = 0; row < motion.count; row++) {
    const seconds = time.rows[row] as number
    const line = motion.line[row] as number
    let low = 0
    let high = starts.length
    while (low < high) {
      const middle = (low + high) >> 1
      if ((starts[middle] as number) <= line) low = middle + 1
      else high = middle
    }
    const begin = starts[low - 1] ?? 1
    const tool = motion.states[motion.state[row] as number]?.tool ?? 0
    let section = sections.get(begin)
    if (!section) {
      section = { from: begin, to: line, tool, title: titles.get(begin) ?? '', seconds: 0, parts: noTime() }
      sections.set(begin, section)
    }
    // The tool that does the work of the section: the last one.
    section.tool = tool || section.tool
    section.to = Math.max(section.to, line)
    section.seconds += seconds
    addRow(section.parts, motion, row, seconds, speeds)
    let own = tools.get(tool)
    if (!own) {
      own = { tool, seconds: 0, parts: noTime() }
      tools.set(tool, own)
    }
    own.seconds += seconds
    addRow(own.parts, motion, row, seconds, speeds)
  }
  const worth = ({ seconds }: { seconds: number }) => seconds > 0
  return {
    sections: [...sections.values()].filter(worth).sort((a, b) => a.from - b.from),
    tools: [...tools.values()].filter(worth),
  }
}
