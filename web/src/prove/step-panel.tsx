import { formatAngle } from '@dogleg/core/angle'
import {
  nextBlock,
  nextFindingBlock,
  nextToolBlock,
  type Press,
  type ProgramFinding,
  type Proof,
} from '@dogleg/core/prove'
import { formatLength, unitSymbol } from '@dogleg/core/quantity'
import type { Setup } from '@dogleg/core/setup'
import { ChevronLeft, ChevronRight, Pause, Play, RotateCcw } from 'lucide-react'
import { type ReactNode, useEffect, useRef } from 'react'
import { CheckField } from '../reference/form-fields.tsx'
import { Button } from '../ui/button.tsx'
import { VerdictMark } from '../ui/verdict.tsx'
import { MeasureFirst } from './measure-first.tsx'
import type { Stepper } from './stepper.ts'
import { useStanding } from './use-standing.ts'

const SPEEDS = [1, 4, 16, 64]

interface StepPanelProps {
  setup: Setup
  stepper: Stepper
  /** What is shown while there is nothing to step through. */
  otherwise: string
  into: boolean
  onInto: (into: boolean) => void
}

/** What the next press of cycle start will do, large; and the keys that step on. */
export function StepPanel({ otherwise, ...props }: StepPanelProps) {
  const { proof, press, here, speed, pace } = useStanding(props.stepper, props.setup)
  if (!proof || !press) return <p className="py-3 text-lg">{otherwise}</p>
  return <Steps {...props} proof={proof} press={press} here={here} speed={speed} pace={pace} />
}

/** The key that does the same. */
const Key = ({ children }: { children: ReactNode }) => (
  <kbd aria-hidden className="digits text-sm font-normal opacity-80">
    {children}
  </kbd>
)

/** Keys that belong to a field or a button are not steps. */
const isElsewhere = (target: EventTarget | null) =>
  target instanceof Element &&
  target.closest(
    'input, textarea, select, [contenteditable], [role=dialog], [role=tablist], [role=radiogroup]',
  ) !== null

interface StepsProps extends Omit<StepPanelProps, 'otherwise'> {
  proof: Proof
  press: Press
  /** What is said of the block that runs next. */
  here: readonly ProgramFinding[]
  speed: number
  pace: number
}

function Steps({ setup, stepper, proof, press, here, speed, pace, into, onInto }: StepsProps) {
  const { motion } = proof.program
  const { unit, machine } = setup
  const { block } = press
  const over = block >= motion.blocks
  const next = () => stepper.go(nextBlock(motion, block, 1, into))
  const back = () => stepper.go(nextBlock(motion, block, -1, into))
  const tool = () => stepper.go(nextToolBlock(motion, block))
  const finding = () => {
    const to = nextFindingBlock(motion, block, proof.findings)
    if (to !== undefined) stepper.go(to)
  }
  const keys = useRef<Map<string, () => void>>(new Map())
  keys.current = new Map([
    [' ', next],
    ['ArrowRight', next],
    ['ArrowLeft', back],
    ['t', tool],
    ['f', finding],
    ['Home', () => stepper.go(0)],
    ['End', () => stepper.go(motion.blocks)],
  ])
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isElsewhere(event.composedPath()[0] ?? event.target)
      )
        return
      // Space presses the button that has the focus.
      if (event.key === ' ' && event.target instanceof HTMLButtonElement) return
      const does = keys.current.get(event.key)
      if (!does) return
      event.preventDefault()
      does()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
  const axes = (['X', 'Y', 'Z'] as const).flatMap((axis, at): { axis: string; toGo: string }[] => {
    const toGo = formatLength(over ? 0 : press.toGo[at as 0 | 1 | 2], unit)
    if (axis === 'Y' && press.across) return [{ axis: press.across, toGo }]
    return machine.axes[axis] ? [{ axis, toGo }] : []
  })
  if (press.turns !== undefined && !over) axes.push({ axis: 'C', toGo: `${formatAngle(press.turns)}°` })
  const verdict = here.some(({ severity }) => severity === 'stop')
    ? 'stop'
    : here.some(({ severity }) => severity === 'look')
      ? 'look'
      : 'good'
  return (
    <div className="space-y-2">
      <div className="grid grid-cols-[auto_1fr] items-start gap-x-6 gap-y-1">
        <table>
          <caption className="text-left text-sm font-semibold whitespace-nowrap">
            Distance to go, {unitSymbol(unit)}
          </caption>
          <tbody>
            {axes.map(({ axis, toGo }) => (
              <tr key={axis}>
                <th scope="row" className="pr-3 text-left text-xl">
                  {axis}
                </th>
                <td className="digits text-right text-3xl leading-9 whitespace-pre">
                  {axis === 'Z' && press.unknown?.toGo ? (
                    <span className="font-sans text-xl">unknown</span>
                  ) : (
                    toGo
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div aria-live="polite" className="min-w-0">
          <p className="flex items-center gap-3 text-sm font-semibold">
            {over ? 'The program has ended.' : `The next press, line ${press.line}:`}
            {!over && <VerdictMark verdict={verdict} />}
          </p>
          {!over && (
            <p className="text-2xl leading-tight font-semibold first-letter:uppercase">{press.says}.</p>
          )}
          {press.unknown?.toGo && <MeasureFirst tool={press.unknown.tool} />}
          {here.slice(0, 2).map(({ code, says, fix }) => (
            <p
              key={`${code}${says}`}
              className={code === here[0]?.code && verdict === 'stop' ? 'font-semibold text-hazard' : ''}
            >
              {says} {fix}
            </p>
          ))}
        </div>
      </div>
      <input
        type="range"
        aria-label="Place in the program, block by block"
        min={0}
        max={motion.blocks}
        value={Math.min(block, motion.blocks)}
        onChange={({ target }) => stepper.go(Number(target.value))}
        className="h-8 w-full accent-ink"
      />
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={back} disabled={block === 0} aria-keyshortcuts="ArrowLeft">
          <ChevronLeft aria-hidden size={20} /> Back <Key>←</Key>
        </Button>
        <Button
          onClick={next}
          disabled={over}
          look="primary"
          className="min-w-32"
          aria-keyshortcuts="Space ArrowRight"
        >
          Next <ChevronRight aria-hidden size={20} /> <Key>space</Key>
        </Button>
        <Button onClick={tool} disabled={over} aria-keyshortcuts="t">
          Next tool <Key>T</Key>
        </Button>
        <Button onClick={finding} disabled={proof.findings.length === 0} aria-keyshortcuts="f">
          Next finding <Key>F</Key>
        </Button>
        {over ? (
          <Button onClick={() => stepper.go(0)} aria-keyshortcuts="Home">
            <RotateCcw aria-hidden size={20} /> From the start
          </Button>
        ) : (
          <Button onClick={() => stepper.play(speed > 0 ? 0 : pace)}>
            {speed > 0 ? <Pause aria-hidden size={20} /> : <Play aria-hidden size={20} />}{' '}
            {speed > 0 ? 'Hold' : 'Run'}
          </Button>
        )}
        <label className="flex items-center gap-2">
          <span className="sr-only">Speed</span>
          <select
            value={pace}
            onChange={({ target }) => stepper.setPace(Number(target.value))}
            className="min-h-11 rounded-sm border border-ink-soft bg-transparent px-2"
          >
            {SPEEDS.map((each) => (
              <option key={each} value={each}>
                {each} times
              </option>
            ))}
          </select>
        </label>
        <CheckField label="Into calls" checked={into} onChange={({ target }) => onInto(target.checked)} />
      </div>
    </div>
  )
}
