import type { SimulatedView } from '@dogleg/core/simulated'
import { Pause, Play, RotateCcw } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { Button } from '../ui/button.tsx'
import { PercentSlider } from './percent-slider.tsx'
import { FrontDrawing } from './table-drawing.tsx'
import type { Simulated } from './use-simulated.ts'

/** The text of the program, with the line that comes next. */
function Lines({ text, line }: { text: string; line: number }) {
  const here = useRef<HTMLLIElement>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the line that moves the list
  useEffect(() => {
    here.current?.scrollIntoView({ block: 'nearest' })
  }, [line])
  return (
    <ol
      aria-label="Program text"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a list that scrolls is scrolled with the keyboard
      tabIndex={0}
      className="digits h-64 overflow-y-auto rounded-sm border border-rule bg-white/50 py-1 text-base leading-6"
    >
      {text
        .trimEnd()
        .split('\n')
        .map((words, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a line of a program is known by its number
            key={index}
            ref={index + 1 === line ? here : undefined}
            aria-current={index + 1 === line ? 'step' : undefined}
            className={`flex gap-3 px-3 ${index + 1 === line ? 'bg-ink text-stock' : ''}`}
          >
            <span className="w-7 shrink-0 text-right select-none">{index + 1}</span>
            <code className="font-mono whitespace-pre-wrap">{words}</code>
          </li>
        ))}
    </ol>
  )
}

const FEED_MARKS = [0, 50, 100, 150]

const PHASES = {
  ready: 'loaded, not started',
  running: 'runs',
  held: 'feed hold',
  stopped: 'stands before the next block',
  done: 'at its end',
} as const

/** Running a program on the simulated machine: single block, overrides, feed hold, distance to go. */
export function ProgramRun({
  view,
  work,
  text,
}: {
  view: SimulatedView
  work: Simulated['work']
  text: string
}) {
  const { run } = view
  if (!run) return <p className="py-3 text-lg">No program is loaded.</p>
  const running = run.phase === 'running'
  return (
    <section aria-label="Program" className="space-y-2 pt-2">
      <div className={view.kind === 'mill' ? 'grid gap-2 sm:grid-cols-2' : ''}>
        <Lines text={text} line={run.line} />
        <FrontDrawing view={view} />
      </div>
      <p role="status" className="text-lg leading-6">
        <span className="font-semibold">
          The program {view.alarm ? 'is stopped by the alarm' : PHASES[run.phase]}.{' '}
        </span>
        {run.next && `Next: ${run.next}.`}
      </p>
      <div className="flex flex-wrap gap-2">
        <Button
          look="primary"
          className="min-w-40"
          disabled={running || run.phase === 'done' || view.alarm !== null}
          onClick={() => work({ do: 'start' })}
        >
          <Play aria-hidden size={20} /> Cycle start
        </Button>
        <Button disabled={!running} onClick={() => work({ do: 'feed-hold' })}>
          <Pause aria-hidden size={20} /> Feed hold
        </Button>
        <Button onClick={() => work({ do: 'reset' })}>
          <RotateCcw aria-hidden size={20} /> Reset, to the start
        </Button>
        <label className="flex min-h-11 items-center gap-2 px-2 font-semibold">
          <input
            type="checkbox"
            className="size-6"
            checked={run.single}
            onChange={({ target }) => work({ do: 'single', on: target.checked })}
          />
          Single block
        </label>
      </div>
      <PercentSlider
        label="Rapid"
        value={run.rapid}
        least={1}
        greatest={100}
        marks={view.rapidMarks}
        onChange={(rapid) => work({ do: 'override', rapid })}
      />
      <PercentSlider
        label="Feed"
        value={run.feed}
        least={0}
        greatest={150}
        marks={FEED_MARKS}
        onChange={(feed) => work({ do: 'override', feed })}
      />
    </section>
  )
}
