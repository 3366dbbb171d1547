import { noTime, predict, type TimeParts, type TimeSection } from '@dogleg/core/timing'
import { useId, useState } from 'react'
import { useOpenSetup } from '../../log/open-setup.ts'
import { Choice } from '../../ui/choice.tsx'
import { Duration } from '../../ui/duration.tsx'
import { ProgramBar } from './program-bar.tsx'
import { KINDS, TimeBar, TimeLegend } from './time-fill.tsx'
import { TimedCycles } from './timed-cycles.tsx'
import { useRunProgram } from './use-run-program.ts'

const WAYS = [
  { value: 'sections', label: 'by stretch' },
  { value: 'tools', label: 'by tool' },
  { value: 'kinds', label: 'by kind' },
] as const
type Way = (typeof WAYS)[number]['value']

interface Bar {
  key: string
  title: string
  more: string
  seconds: number
  parts: TimeParts
  /** Lines of the text that it stands for. */
  ranges: readonly (readonly [number, number])[]
}

const linesOf = ({ from, to }: TimeSection) => (from === to ? `line ${from}` : `lines ${from} to ${to}`)

/** Where the time of a program goes, by stretch, tool or kind, down to its lines; what it took, and what it should take. */
export function TimePanel() {
  const { setup, reference } = useOpenSetup()
  const run = useRunProgram()
  const { program, time, calibration } = run
  const [way, setWay] = useState<Way>('sections')
  const [chosen, setChosen] = useState<string>()
  const id = useId()
  const found = time.answer
  if (!program)
    return (
      <p className="py-6 text-lg">
        No program of this setup is in its logbook yet: prove one, or open one in Prove.
      </p>
    )
  const toolName = (number: number) =>
    reference.tools.find(({ machineId, number: own }) => machineId === setup.machine.id && own === number)
      ?.name ?? ''
  const bars: Bar[] = !found
    ? []
    : way === 'sections'
      ? found.sections.map((section) => ({
          key: `s${section.from}`,
          title: section.title || `T${section.tool} ${toolName(section.tool)}`,
          more: linesOf(section),
          seconds: section.seconds,
          parts: section.parts,
          ranges: [[section.from, section.to]],
        }))
      : way === 'tools'
        ? found.tools.map(({ tool, seconds, parts }) => ({
            key: `t${tool}`,
            title: tool === 0 ? 'No tool' : `T${tool} ${toolName(tool)}`,
            more: '',
            seconds,
            parts,
            ranges: found.sections
              .filter((each) => each.tool === tool)
              .map(({ from, to }) => [from, to] as const),
          }))
        : KINDS.filter(([kind]) => found.parts[kind] > 0).map(([kind, word]) => ({
            key: kind,
            title: word,
            more: '',
            seconds: found.parts[kind],
            parts: { ...noTime(), [kind]: found.parts[kind] },
            ranges: found.sections
              .filter(({ parts }) => parts[kind] > 0)
              .map(({ from, to }) => [from, to] as const),
          }))
  const longest = Math.max(...bars.map(({ seconds }) => seconds), 1e-9)
  const shown =
    bars.find(({ key }) => key === chosen) ??
    bars.reduce<Bar | undefined>((a, b) => (a && a.seconds >= b.seconds ? a : b), undefined)
  const predicted = found && predict(found.parts, calibration.calibration)
  return (
    <div className="flex flex-1 flex-col gap-2 py-2">
      <ProgramBar run={run}>
        {found && predicted && (
          <>
            <p>
              <span className="block text-sm text-ink-soft">a cycle, as calculated</span>
              <Duration seconds={found.total} className="text-3xl font-semibold" />
            </p>
            <p>
              <span className="block text-sm text-ink-soft">
                {calibration.counted.length > 0
                  ? `as ${calibration.counted.length === 1 ? 'one timed cycle' : `${calibration.counted.length} timed cycles`} of this machine say`
                  : 'nothing was timed on this machine yet'}
              </span>
              <Duration seconds={predicted.seconds} className="text-3xl font-semibold" />{' '}
              <span className="text-xl">
                ± <Duration seconds={2 * predicted.doubt} />
              </span>
            </p>
          </>
        )}
      </ProgramBar>
      <div className="grid flex-1 content-start gap-x-5 gap-y-3 lg:grid-cols-[1fr_21rem_19rem]">
        <section aria-label="Where the time goes" className="min-w-0 space-y-2">
          <div className="w-80">
            <Choice quiet label="Time by" value={way} options={WAYS} onChange={setWay} />
          </div>
          {found && <TimeLegend id={`${id}-key`} parts={found.parts} />}
          <ul className="max-h-[24rem] overflow-y-auto" tabIndex={-1}>
            {bars.map((bar) => (
              <li key={bar.key} className="border-t border-rule">
                <button
                  type="button"
                  aria-pressed={bar === shown}
                  onClick={() => setChosen(bar.key)}
                  className={`grid min-h-12 w-full grid-cols-[1fr_6.5rem] items-center gap-x-3 px-1 py-1 text-left hover:bg-stock-shade ${bar === shown ? 'bg-stock-shade' : ''}`}
                >
                  <span className="min-w-0">
                    <span className="flex gap-2 leading-5">
                      <span className="truncate font-semibold">{bar.title}</span>
                      <span className="shrink-0 text-sm text-ink-soft">{bar.more}</span>
                    </span>
                    <TimeBar id={`${id}-${bar.key}`} parts={bar.parts} whole={longest} />
                  </span>
                  <Duration seconds={bar.seconds} className="text-right text-xl font-semibold" />
                </button>
              </li>
            ))}
          </ul>
          {!found && <p className="text-ink-soft">Reading the program…</p>}
          {found && found.assumed.length > 0 && (
            <p className="font-semibold">
              Not on the machine’s page, taken as usual: {found.assumed.join('; ')}.
            </p>
          )}
        </section>
        <ChosenLines text={program.text} title={shown?.title ?? ''} ranges={shown?.ranges ?? []} />
        <TimedCycles run={run} />
      </div>
    </div>
  )
}

/** Lines shown at once. */
const MOST_LINES = 300

/** The lines of the program that a bar stands for. */
function ChosenLines({ text, title, ranges }: { text: string; title: string; ranges: Bar['ranges'] }) {
  const lines = text.split(/\r\n|\r|\n/)
  const shown = ranges
    .flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, n) => from + n))
    .slice(0, MOST_LINES)
  return (
    <section aria-label={`Lines of ${title}`} className="min-w-0">
      <h2 className="truncate font-semibold">{title}</h2>
      <ol
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls
        tabIndex={0}
        aria-label="Its lines"
        className="digits mt-1 max-h-[27rem] overflow-y-auto rounded-sm border border-rule bg-white/50 py-1 leading-6"
      >
        {shown.map((line) => (
          <li key={line} className="flex gap-3 px-2">
            <span className="w-9 shrink-0 text-right text-ink-soft" aria-hidden>
              {line}
            </span>
            <code className="min-w-0 font-mono break-words whitespace-pre-wrap">{lines[line - 1]}</code>
          </li>
        ))}
      </ol>
    </section>
  )
}
