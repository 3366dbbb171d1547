import { printedDigits } from '@dogleg/core/control'
import { LINEAR_AXES } from '@dogleg/core/machine'
import { readProgram } from '@dogleg/core/program'
import { fixedDigits, unitSymbol } from '@dogleg/core/quantity'
import { type OffsetState, programFor, restsOf, type Setup } from '@dogleg/core/setup'
import { CheckCheck, Copy, Download, Hourglass } from 'lucide-react'
import { useMemo, useState } from 'react'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/use-setup.ts'
import { Button, ButtonLink } from '../ui/button.tsx'
import { Select } from '../ui/select.tsx'
import { Findings } from '../ui/verdict.tsx'
import { When } from '../ui/when.tsx'
import { Listing } from './listing.tsx'

/** 'G154 P3' of 'Focuser housing' becomes focuser-housing-g154-p3.nc. */
const fileName = (setup: Setup, offset: string) =>
  `${setup.opened.title} ${offset}`
    .toLowerCase()
    .replace(/[^a-z0-9.]+/g, '-')
    .replace(/^-|-$/g, '')
    .concat('.nc')

function download(text: string, name: string) {
  const address = URL.createObjectURL(new Blob([text], { type: 'text/plain' }))
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}

/** What the reader finds in the text: the offset values as the control will store them. */
function ReadBack({ text, digits }: { text: string; digits: number }) {
  const { unit, steps } = readProgram(text)
  const load = steps.find((step) => step.does === 'load-offset')
  if (!load || !unit)
    return <p>This control cannot load offsets from a program: key the values in at the first stop.</p>
  return (
    <table className="w-full">
      <caption className="pb-1 text-left font-semibold">
        What the program loads, read back from its text
      </caption>
      <tbody>
        {LINEAR_AXES.map((axis) => (
          <tr key={axis} className="border-t border-rule">
            <th scope="row" className="py-1 text-left text-xl">
              {axis}
            </th>
            <td className="digits py-1 text-right text-3xl">
              {load.axes[axis] === undefined ? (
                <span className="text-lg">not loaded</span>
              ) : (
                fixedDigits(load.axes[axis], digits)
              )}
            </td>
            <td className="w-10 pl-2 text-ink-soft">{load.axes[axis] !== undefined && unitSymbol(unit)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Taken({ offset, text }: { offset: OffsetState; text: string | undefined }) {
  const { program } = offset
  if (!program) return <p className="text-ink-soft">Nobody has taken it to the control yet.</p>
  const stale = program.freshness.state === 'stale'
  const says = `${program.entry.how} by ${program.entry.by}`
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

/** The program that loads an offset and stands the spindle over part zero: read it, copy it, download it. */
export function ProgramView() {
  const { setup } = useOpenSetup()
  const [offset, chooseOffset] = useOffset(setup)
  const [failed, setFailed] = useState<string>()
  const signed = useSigned()
  const written = useMemo(() => programFor(setup, offset), [setup, offset])

  const taken = (how: 'copied' | 'downloaded', text: string) =>
    record(setup.id, {
      kind: 'program',
      offset: offset.name,
      rests: restsOf(offset, 'program'),
      profile: { id: setup.profile.id, version: setup.profile.version },
      machine: { id: setup.machine.id, version: setup.machine.version },
      how,
      text,
    })

  const copy = (text: string) =>
    signed(async () => {
      try {
        await navigator.clipboard.writeText(text)
        setFailed(undefined)
        taken('copied', text)
      } catch {
        setFailed(
          'This browser does not let the page copy. Download the file, or select the text and press Ctrl+C.',
        )
      }
    })
  const save = (text: string) =>
    signed(() => {
      download(text, fileName(setup, offset.name))
      taken('downloaded', text)
    })

  return (
    <div className="grid flex-1 content-start gap-6 py-4 lg:grid-cols-[1fr_24rem]">
      <section aria-label="Program" className="order-2 min-w-0 lg:order-1">
        {written.ok ? (
          <Listing text={written.text} />
        ) : (
          <div className="max-w-prose space-y-4">
            <h2 className="text-2xl font-semibold">No program is written for {offset.name}</h2>
            <Findings findings={written.findings} />
            <ButtonLink
              to={`../zero?offset=${encodeURIComponent(offset.name)}`}
              relative="path"
              look="primary"
            >
              To the Zero step
            </ButtonLink>
          </div>
        )}
      </section>
      <aside className="order-1 space-y-4 lg:order-2">
        <label className="flex items-center gap-3 font-semibold">
          Offset
          <Select
            className="digits"
            value={offset.name}
            onChange={(event) => chooseOffset(event.target.value)}
          >
            {[...new Set([...setup.offsets.map(({ name }) => name), offset.name])].map((name) => (
              <option key={name}>{name}</option>
            ))}
          </Select>
          <span className="font-normal text-ink-soft">profile {setup.profile.name}</span>
        </label>
        {written.ok && (
          <>
            <ReadBack text={written.text} digits={printedDigits(setup.profile, setup.unit)} />
            <Findings findings={written.findings} />
            <div className="flex gap-2">
              <Button look="primary" className="min-h-14 flex-1 text-lg" onClick={() => save(written.text)}>
                <Download aria-hidden size={22} /> Download .nc
              </Button>
              <Button className="min-h-14 flex-1 text-lg" onClick={() => copy(written.text)}>
                <Copy aria-hidden size={22} /> Copy
              </Button>
            </div>
            {failed && (
              <p role="alert" className="font-semibold">
                {failed}
              </p>
            )}
          </>
        )}
        <Taken offset={offset} text={written.ok ? written.text : undefined} />
        {[setup.profile.offsets.note, setup.profile.loadOffset?.note].filter(Boolean).map((note) => (
          <p key={note}>On this control: {note}</p>
        ))}
        <p className="border-t border-rule pt-3">
          First run: single block, low rapid override, a hand on feed hold. Nothing loose on the table, nobody
          reaching in.
        </p>
      </aside>
    </div>
  )
}
