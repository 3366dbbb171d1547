import type { CodeLine } from '@dogleg/core/code'
import type { Finding } from '@dogleg/core/fact'
import type { FieldProblems } from '@dogleg/core/quantity'
import { type ReactNode, useState } from 'react'
import { Findings } from '../ui/verdict.tsx'
import { type Ended, EndedLine } from '../ui/worker-ended.tsx'
import { CodeListing } from './code-listing.tsx'

interface CodePanelProps {
  /** Name of the control's profile. */
  profile: string
  problems: FieldProblems
  findings: readonly Finding[]
  /** What else is to be said, a sentence each. */
  tells: readonly string[]
  /** How writing ended, where it broke off; `onWriteAgain` tries once more. */
  failed: Ended | undefined
  onWriteAgain: () => void
  /** The whole program. */
  lines: readonly CodeLine[]
  /** The cycle in hand. */
  item: string
  /** Said where there is no code. */
  otherwise: string
  working: ReactNode
  lit: string | undefined
  onPoint: (field: string | undefined) => void
  onPick: (field: string) => void
}

/** What is said of the cycle in hand, and its code: by itself or in the whole program; or the arithmetic behind it. */
export function CodePanel({
  profile,
  problems,
  findings,
  tells,
  failed,
  onWriteAgain,
  lines,
  item,
  otherwise,
  working,
  lit,
  onPoint,
  onPick,
}: CodePanelProps) {
  const [whole, setWhole] = useState(false)
  const [shows, setShows] = useState<'code' | 'working'>('code')
  const missing = Object.values(problems)
  const shown = whole ? lines : lines.filter((line) => line.item === item)
  const from = whole ? 1 : lines.findIndex((line) => line.item === item) + 1
  const says =
    missing.length === 0
      ? []
      : missing.some(({ empty }) => !empty)
        ? ['A field is not understood yet.']
        : [
            `${missing.length} ${missing.length === 1 ? 'answer is' : 'answers are'} still missing: ${Object.keys(problems).map(fieldWords).join(', ')}.`,
          ]
  const tick = (label: string, checked: boolean, onChange: (checked: boolean) => void) => (
    <label className="flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        checked={checked}
        onChange={({ target }) => onChange(target.checked)}
        className="size-6 accent-ink"
      />
      {label}
    </label>
  )
  return (
    <>
      {[...says, ...tells].map((sentence) => (
        <p key={sentence} className="font-semibold" role="status">
          {sentence}
        </p>
      ))}
      {failed && (
        <p>
          <EndedLine
            ended={failed}
            broke="Writing broke off, and there is no code of what stands here now: this tablet may be short of memory. Nothing typed is lost."
            again={onWriteAgain}
            tryAgain="Write it again"
          />
        </p>
      )}
      <Findings findings={findings} />
      <div className="flex flex-1 flex-col">
        <div className="flex items-center gap-4">
          <h2 className="mr-auto font-semibold">{shows === 'code' ? `Code for ${profile}` : 'Working'}</h2>
          {tick('working', shows === 'working', (on) => setShows(on ? 'working' : 'code'))}
          {tick('whole program', whole, setWhole)}
        </div>
        <section
          aria-label={shows === 'code' ? 'Program text' : 'Working'}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
          tabIndex={0}
          className="min-h-72 flex-1 basis-0 overflow-y-auto rounded-sm border border-rule bg-white/50 lg:min-h-[max(7rem,calc(100dvh-42.5rem))]"
        >
          {shows === 'working' ? (
            <div className="p-3">{working}</div>
          ) : shown.length > 0 ? (
            <CodeListing lines={shown} from={from} lit={lit} onPoint={onPoint} onPick={onPick} />
          ) : (
            <p className="p-3 text-ink-soft">{otherwise}</p>
          )}
        </section>
      </div>
    </>
  )
}

const FIELD_WORDS: Record<string, string> = {
  list: 'the places of the holes',
  chamferTool: 'tool of the chamfer',
  drillTool: 'drill',
  tapTool: 'tap',
  tool: 'tool',
  surface: 'diameter',
  near: 'wall',
  far: 'other wall',
  bottom: 'bottom',
  widthTolerance: 'tolerance of the walls',
  bottomTolerance: 'tolerance of the bottom',
  corner: 'corner radius',
  edgeSize: 'size of the edge',
  pitch: 'from one to the next',
  insertCorner: 'corner radius of the insert',
  x: 'X',
  y: 'Y',
  toX: 'X of its end',
  toY: 'Y of its end',
  boxWidth: 'width of the box',
  boxHeight: 'height of the box',
  serial: 'number',
  toolAngle: 'angle of the point',
  tip: 'flat of the tip',
  shortLine: 'length of a line',
  middleEvery: 'which lines are longer',
  middleLine: 'length of the longer lines',
  longEvery: 'which lines are longest',
  longLine: 'length of the longest lines',
  numeralEvery: 'which lines have a numeral',
  numeralFirst: 'first numeral',
  numeralStep: 'steps of the numerals',
  numeralHeight: 'height of the numerals',
  divisions: 'number of divisions',
  span: 'angle in all',
  slots: 'number of slots',
  slotSpan: 'angle of a slot',
  slotPitch: 'from slot to slot',
  holes: 'number of holes',
  rowSpacing: 'from row to row',
  ownMajor: 'outside diameter',
  ownPitch: 'pitch',
}
const fieldWords = (field: string) =>
  FIELD_WORDS[field] ?? field.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`)
