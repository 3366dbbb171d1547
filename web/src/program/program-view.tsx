import { printedDigits } from '@dogleg/core/control'
import { LINEAR_AXES } from '@dogleg/core/machine'
import { programFor, restsOf } from '@dogleg/core/prepare'
import { readSteps } from '@dogleg/core/program'
import { fixedDigits, unitSymbol } from '@dogleg/core/quantity'
import type { Setup } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { ButtonLink } from '../ui/button.tsx'
import { Select } from '../ui/select.tsx'
import { Findings } from '../ui/verdict.tsx'
import { Listing } from './listing.tsx'
import { Taken, TakeProgram } from './take-program.tsx'

/** What the reader finds in the text: the offset values as the control will store them. */
function ReadBack({ text, setup }: { text: string; setup: Setup }) {
  const { profile, machine, unit: own } = setup
  const { unit, steps } = readSteps(text, { profile, machine, unit: own })
  const digits = printedDigits(profile, own)
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

/** The program that loads an offset and stands the spindle over part zero: read it, copy it, download it. */
export function ProgramView() {
  const { setup } = useOpenSetup()
  const [offset, chooseOffset] = useOffset(setup)
  const written = useMemo(() => programFor(setup, offset), [setup, offset])

  return (
    <>
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
              <ReadBack text={written.text} setup={setup} />
              <Findings findings={written.findings} />
              <TakeProgram
                setup={setup}
                offset={offset}
                what="load"
                rests={restsOf(offset, 'program', setup.part)}
                text={written.text}
              />
            </>
          )}
          <Taken program={offset.program} text={written.ok ? written.text : undefined} />
          {[setup.profile.offsets.note, setup.profile.loadOffset?.note].filter(Boolean).map((note) => (
            <p key={note}>On this control: {note}</p>
          ))}
          <p className="border-t border-rule pt-3">
            First run: single block, low rapid override, a hand on feed hold. Nothing loose on the table,
            nobody reaching in.
          </p>
        </aside>
      </div>
      <NextBar step="zero" isHere={({ part, about }) => part === 'load' && about === offset.name} />
    </>
  )
}
