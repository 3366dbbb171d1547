import { formatAngle, type ProgramTurn } from '@dogleg/core/angle'
import { againstTurning, turnedOutside, turningRests, whoTurns } from '@dogleg/core/prepare'
import { formatLength, readLength } from '@dogleg/core/quantity'
import type { OffsetState } from '@dogleg/core/setup'
import { useState } from 'react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Listing } from '../program/listing.tsx'
import { Taken, TakeProgram } from '../program/take-program.tsx'
import { Button } from '../ui/button.tsx'
import { LengthEntryField } from '../ui/entry-field.tsx'
import { Progress } from '../ui/progress.tsx'
import { readFile } from '../ui/read-file.ts'
import { Findings } from '../ui/verdict.tsx'
import { useTurner } from './use-turner.ts'

const LONGEST = 20_000_000
const SHOWN_LINES = 400
const SHOWN_CHARACTERS = 100_000

/** For a control that cannot turn: a program's own moves, turned. */
export function MovesPanel({ offset }: { offset: OffsetState }) {
  const { setup } = useOpenSetup()
  const { unit, profile } = setup
  // What is pasted is kept on the tablet; a file is on its disk anyway.
  const [pasted, keepPasted] = useKept<string>(`${setup.id}.${offset.name}.moves`, z.string(), () => '')
  const [opened, setOpened] = useState<{ name: string; text: string }>()
  const text = opened?.text ?? pasted
  const [about, setAbout] = useState({ x: '0', y: '0' })
  const [told, setTold] = useState<string>()
  const { now, turn, stop } = useTurner()
  const { angle } = offset
  const against = againstTurning(setup, offset)
  const stopped = against.some(({ severity }) => severity === 'stop')
  const [x, y] = [readLength(about.x, unit), readLength(about.y, unit)]
  const ready = !stopped && angle && x.ok && y.ok && text.trim() !== ''

  const open = async (chosen: File | undefined) => {
    if (!chosen) return
    if (chosen.size > LONGEST) {
      setTold(
        `${chosen.name} has ${Math.round(chosen.size / 1e6)} million characters; at most 20 million are taken.`,
      )
      return
    }
    const read = await readFile(chosen)
    if (!read.ok) {
      setTold(read.says)
      return
    }
    setOpened({ name: chosen.name, text: read.text })
    setTold(undefined)
    stop()
  }
  const go = () => {
    if (!ready || !x.ok || !y.ok) return
    const turning: ProgramTurn = {
      offset: offset.name,
      unit,
      by: angle.angle.value,
      about: { x: x.value, y: y.value },
    }
    void turn(text, turning, profile)
  }
  const rests = turningRests(setup, offset)
  const whose = whoTurns(setup, offset)
  const result = now.state === 'done' ? now.result : undefined
  const outside = result?.ok ? turnedOutside(setup, offset, result.extent) : []
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[24rem_1fr]">
      <form
        aria-label="Program to turn"
        className="space-y-2"
        onSubmit={(event) => {
          event.preventDefault()
          go()
        }}
      >
        <Findings findings={against} />
        <label className="block font-semibold">
          Program, pasted or opened
          <textarea
            value={text.length > SHOWN_CHARACTERS ? `${text.slice(0, SHOWN_CHARACTERS)}\n…` : text}
            readOnly={opened !== undefined && text.length > SHOWN_CHARACTERS}
            onChange={({ target }) => {
              // A long text would fill the tablet's storage.
              if (target.value.length > SHOWN_CHARACTERS) setOpened({ name: 'pasted', text: target.value })
              else {
                keepPasted(target.value)
                setOpened(undefined)
              }
              if (now.state !== 'idle') stop()
            }}
            rows={9}
            spellCheck={false}
            autoComplete="off"
            className="digits mt-0.5 block w-full rounded-sm border border-ink-soft bg-white/60 px-3 py-1 text-base font-normal"
          />
        </label>
        <label className="flex min-h-11 flex-wrap items-center gap-3 font-semibold">
          Open a file
          <input
            type="file"
            accept=".nc,.txt,.tap,.cnc,.ngc,text/plain"
            onChange={({ target }) => void open(target.files?.[0])}
            className="min-h-11 max-w-60 font-normal file:mr-3 file:min-h-11 file:rounded-sm file:border file:border-ink-soft file:bg-transparent file:px-3 file:font-semibold"
          />
        </label>
        {opened && (
          <p className="flex flex-wrap items-center gap-x-3 text-sm text-ink-soft">
            {opened.name}, {text.split('\n').length} lines
            <Button
              onClick={() => {
                setOpened(undefined)
                stop()
              }}
            >
              Take it out
            </Button>
          </p>
        )}
        {told && <p className="font-semibold">{told}</p>}
        {whose && <p className="font-semibold">{whose}</p>}
        <div className="grid grid-cols-2 gap-x-3">
          <LengthEntryField
            label="About X"
            unit={unit}
            value={about.x}
            onChange={(next) => setAbout({ ...about, x: next })}
            hint="0 for part zero."
          />
          <LengthEntryField
            label="About Y"
            unit={unit}
            value={about.y}
            onChange={(next) => setAbout({ ...about, y: next })}
            hint="0 for part zero."
          />
        </div>
        {now.state === 'turning' ? (
          <div className="flex items-center gap-3">
            <Progress share={now.share} label="Turning" className="flex-1" />
            <Button onClick={stop}>Stop</Button>
          </div>
        ) : (
          <Button type="submit" look="primary" disabled={!ready} className="min-h-14 w-full text-lg">
            {angle ? `Turn it by ${formatAngle(angle.angle.value)} degrees` : 'Turn it'}
          </Button>
        )}
      </form>
      <section aria-label="Turned program" className="min-w-0 space-y-3" aria-live="polite">
        {now.state === 'idle' && (
          <div className="max-w-prose space-y-2 text-ink-soft">
            <p>
              For a control without a code for it. Lines, arcs and drilling positions in X and Y are turned;
              every other word and comment stays. Moves in machine positions and home returns stay as they
              are.
            </p>
            <p>What cannot be turned is refused by its line, and then nothing is given out.</p>
          </div>
        )}
        {now.state === 'failed' && <p className="font-semibold">{now.says}</p>}
        {result && !result.ok && (
          <div className="space-y-2">
            <p className="text-xl font-semibold">Nothing is turned: these lines cannot be.</p>
            <ul className="space-y-1">
              {result.refused.map(({ line, says }) => (
                <li key={line} className="flex gap-3 border-t border-rule py-1">
                  <span className="digits w-20 shrink-0 font-semibold">line {line}</span>
                  <span>{says}</span>
                </li>
              ))}
            </ul>
            {result.more > 0 && <p>and {result.more} more</p>}
          </div>
        )}
        {result?.ok && (
          <div className="space-y-3">
            <p className="text-lg font-semibold">{result.changed} moves turned, read back and compared.</p>
            {result.extent && (
              <p>
                It goes from X <span className="digits">{formatLength(result.extent.least.x, unit)}</span> Y{' '}
                <span className="digits">{formatLength(result.extent.least.y, unit)}</span> to X{' '}
                <span className="digits">{formatLength(result.extent.greatest.x, unit)}</span> Y{' '}
                <span className="digits">{formatLength(result.extent.greatest.y, unit)}</span> of{' '}
                {offset.name}. Look at clamps and jaws there.
              </p>
            )}
            {result.notes.map((note) => (
              <p key={note}>{note}</p>
            ))}
            <Findings findings={outside} />
            {!outside.some(({ severity }) => severity === 'stop') && (
              <>
                <div className="max-w-lg space-y-2">
                  <TakeProgram setup={setup} offset={offset} what="turned" rests={rests} text={result.text} />
                  <Taken program={offset.further.turned} text={result.text} />
                </div>
                <Listing text={result.text.split('\n').slice(0, SHOWN_LINES).join('\n')} />
                {result.text.split('\n').length > SHOWN_LINES && <p>The rest is in the file.</p>}
              </>
            )}
          </div>
        )}
      </section>
    </div>
  )
}
