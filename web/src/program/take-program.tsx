import { LONGEST_PROGRAM } from '@dogleg/core/log'
import { beforeStart, takesPlaceOf, whichProgram } from '@dogleg/core/prepare'
import {
  type OffsetState,
  type ProgramFact,
  type ProgramKind,
  type Setup,
  TAKEN_HOW,
} from '@dogleg/core/setup'
import { CheckCheck, Copy, Download, Hourglass } from 'lucide-react'
import { useMemo, useState } from 'react'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Handed, HandKey, useHanding } from '../simulated/hand-to-simulated.tsx'
import { Button } from '../ui/button.tsx'
import { copyText } from '../ui/clipboard.ts'
import { saveFile } from '../ui/save-file.ts'
import { When } from '../ui/when.tsx'
import { Listing } from './listing.tsx'
import { useNumbersAt } from './use-numbers-at.ts'

const SUFFIX: Record<ProgramKind, string> = {
  load: '',
  angle: ' turn',
  turned: ' turned',
  probe: ' probe',
  coded: '',
  gauge: ' gauge',
  bar: ' bar',
  setting: ' lengths',
}

/** 'G154 P3' of 'Focuser housing' becomes focuser-housing-g154-p3.nc. */
const fileName = (setup: Setup, offset: string, what: ProgramKind, title?: string) =>
  `${title ?? `${setup.opened.title} ${offset}`}${SUFFIX[what]}`
    .toLowerCase()
    .replace(/[^a-z0-9.]+/g, '-')
    .replace(/^-|-$/g, '')
    .concat('.nc')

interface TakeProgramProps {
  setup: Setup
  offset: OffsetState
  what: ProgramKind
  /** Of a program that was built from cycles. */
  title?: string
  /** The facts that it rests on, or what records them first. */
  rests: string[] | (() => string[])
  text: string
}

/** The keys that take a program to the control; what was taken is kept in the log. */
export function TakeProgram({ setup, offset, what, title, rests, text }: TakeProgramProps) {
  const [failed, setFailed] = useState<string>()
  const signed = useSigned()
  const handing = useHanding(setup.machine, text)
  const known = useNumbersAt()
  const tooLong = text.length > LONGEST_PROGRAM
  const taken = (how: 'copied' | 'downloaded' | 'handed') => {
    if (tooLong) return
    record(setup.id, {
      kind: 'program',
      offset: offset.name,
      what,
      ...(title ? { title } : {}),
      rests: typeof rests === 'function' ? rests() : rests,
      profile: { id: setup.profile.id, version: setup.profile.version },
      machine: { id: setup.machine.id, version: setup.machine.version },
      how,
      text,
    })
  }
  // What is built or composed here says so beside its number.
  const other =
    what === 'coded' || what === 'gauge'
      ? undefined
      : takesPlaceOf(text, whichProgram({ what, offset: offset.name }), known)
  const copy = () =>
    signed(async () => {
      const wrong = await copyText(text)
      setFailed(wrong && `${wrong} Download the file, or select the text and press Ctrl+C.`)
      if (wrong === undefined) taken('copied')
    })
  const save = () =>
    signed(() => {
      saveFile(text, fileName(setup, offset.name, what, title))
      taken('downloaded')
    })
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <Button
          look="primary"
          className="min-h-14 flex-1 text-lg whitespace-nowrap max-lg:px-2!"
          onClick={save}
        >
          <Download aria-hidden size={22} /> Download .nc
        </Button>
        <Button className="min-h-14 flex-1 text-lg whitespace-nowrap max-lg:px-2!" onClick={copy}>
          <Copy aria-hidden size={22} /> Copy
        </Button>
        {handing && <HandKey of={handing} signed={signed} onHanded={() => taken('handed')} />}
      </div>
      {/* Beside its key: what stands below may go once it is taken, and would move it under the finger. */}
      {handing && <Handed of={handing} />}
      {other && (
        <p className="font-semibold">
          O{other.number} at {setup.machine.name} is {other.which} (<When at={other.entry.at} />
          ): this one takes its place.
        </p>
      )}
      <BeforeStart setup={setup} text={text} />
      {tooLong && (
        <p className="text-sm">It is too long to be kept in the logbook; only the file is given out.</p>
      )}
      {failed && (
        <p role="alert" className="font-semibold">
          {failed}
        </p>
      )}
    </>
  )
}

/** What is to be done at the control before cycle start, in order, and how it shows that another program runs. */
function BeforeStart({ setup, text }: { setup: Setup; text: string }) {
  const { profile, machine, unit } = setup
  const { steps, tells } = useMemo(
    () => beforeStart(text, { profile, machine, unit }),
    [text, profile, machine, unit],
  )
  return (
    <details>
      <summary className="min-h-11 content-center font-semibold">Before cycle start</summary>
      <ol className="list-decimal space-y-1 pl-6">
        {steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {tells.map((tell) => (
        <p key={tell} className="pt-1">
          {tell}
        </p>
      ))}
    </details>
  )
}

/** The text itself, one press away. */
export const WholeProgram = ({ text }: { text: string }) => (
  <details>
    <summary className="min-h-11 content-center font-semibold">The whole program</summary>
    <Listing text={text} />
  </details>
)

/** Whether a program of this kind is at the control already, and whether it is this one. */
export function Taken({
  program,
  text,
}: {
  program: Pick<ProgramFact, 'entry' | 'freshness'> | undefined
  text: string | undefined
}) {
  if (!program) return <p className="text-ink-soft">Nobody has taken it to the control yet.</p>
  const stale = program.freshness.state === 'stale'
  const says = `${TAKEN_HOW[program.entry.how]} by ${program.entry.by}`
  if (stale)
    return (
      <p className="hatched flex items-start gap-2 p-2 font-semibold">
        <Hourglass aria-hidden size={20} className="mt-0.5 shrink-0" />
        <span>
          The one at the control is stale:{' '}
          {program.freshness.state === 'stale' && program.freshness.cause.says}. It was {says},{' '}
          <When at={program.entry.at} />.
        </span>
      </p>
    )
  return (
    <p className="flex items-start gap-2">
      <CheckCheck aria-hidden size={20} className="mt-0.5 shrink-0" />
      <span>
        Taken: {says}, <When at={program.entry.at} />.{' '}
        {text === program.entry.text ? 'The same as this one.' : 'This one differs.'}
      </span>
    </p>
  )
}
