import {
  LONGEST_FLAT,
  outlineProgram,
  type WrapDraft,
  type WrapParams,
  type WrapSizes,
} from '@dogleg/core/cycles/wrapping'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { ListField } from '../ui/list-field.tsx'
import { OpenFile } from '../ui/open-file.tsx'
import {
  ChoiceField,
  LengthField,
  NumberField,
  Pair,
  SwitchField,
  useAnswer,
  useAnswers,
  useCycleForm,
  WordsField,
} from './cycle-field.tsx'
import { dxfSaid, pathsOfDxf } from './dxf.ts'
import { ToolField } from './tool-field.tsx'

const WRAP_PARTS = [
  ['layout', 'Layout'],
  ['numerals', 'Numerals'],
  ['cylinder', 'Cylinder'],
  ['tool', 'Tool'],
  ['cut', 'Cut'],
] as const
export type WrapPart = (typeof WRAP_PARTS)[number][0]

const PART_OF: Record<string, WrapPart> = {
  numeralEvery: 'numerals',
  numeralFirst: 'numerals',
  numeralStep: 'numerals',
  numeralHeight: 'numerals',
  numeralsRun: 'numerals',
  numeralGap: 'numerals',
  diameter: 'cylinder',
  trueAt: 'cylinder',
  zZero: 'cylinder',
  x: 'cylinder',
  turn: 'cylinder',
  way: 'cylinder',
  slash: 'cylinder',
  tool: 'tool',
  depth: 'tool',
  stepDown: 'tool',
  turns: 'tool',
  feed: 'tool',
  plungeFeed: 'tool',
  rPlane: 'cut',
  clearance: 'cut',
  chord: 'cut',
  coolant: 'cut',
}
export const wrapPartOf = (field: string): WrapPart => PART_OF[field] ?? 'layout'

/** The parts that the form of a layout has: numerals only where there is a scale. */
export const wrapParts = ({ what }: WrapDraft) =>
  WRAP_PARTS.filter(([part]) => part !== 'numerals' || what === 'scale')

interface WrapFormProps {
  part: WrapPart
  params: WrapParams
  sizes: WrapSizes
  unit: LengthUnit
}

const isNone = (typed: string) => /^0*$/.test(typed.trim())

/** One part of the form of a layout on a cylinder. */
export function WrapForm({ part, params, sizes, unit }: WrapFormProps) {
  const draft = useAnswers()
  const { setup } = useOpenSetup()
  const { mapping } = setup.profile.reading
  const wrap = draft as unknown as WrapDraft
  const say = (value: number) => formatLength(value, unit)
  switch (part) {
    case 'layout':
      return (
        <div className="space-y-1">
          <ChoiceField
            quiet
            field="what"
            label="What"
            options={[
              ['scale', 'scale'],
              ['text', 'text'],
              ['slots', 'slots'],
              ['holes', 'holes'],
              ['program', 'file'],
            ]}
          />
          <LayoutFields wrap={wrap} unit={unit} params={params} />
        </div>
      )
    case 'numerals':
      return (
        <div className="space-y-1">
          <Pair>
            <NumberField field="numeralEvery" label="A numeral every" hint="lines; 0 for none" />
            {!isNone(wrap.numeralEvery) && <LengthField field="numeralHeight" label="Height" />}
          </Pair>
          {!isNone(wrap.numeralEvery) && (
            <>
              <Pair>
                <NumberField field="numeralFirst" label="The first is" />
                <NumberField field="numeralStep" label="then in steps of" />
              </Pair>
              <ChoiceField
                field="numeralsRun"
                label="They read"
                options={[
                  ['round', 'round'],
                  ['along', 'along the axis'],
                ]}
              />
              <LengthField field="numeralGap" label="From line to numeral" />
            </>
          )}
        </div>
      )
    case 'cylinder':
      return (
        <div className="space-y-1">
          <Pair>
            <LengthField field="diameter" label="Diameter" />
            <LengthField field="x" label="Begins at X" />
          </Pair>
          <Pair>
            <NumberField field="turn" label="Begins at angle" suffix="°" />
          </Pair>
          <ChoiceField
            field="zZero"
            label="Z zero"
            options={[
              ['top', 'on top'],
              ['centre', 'in the centre'],
            ]}
          />
          {wrap.what !== 'program' && (
            <ChoiceField
              field="trueAt"
              label="Lengths true"
              options={[
                ['surface', 'on the surface'],
                ['bottom', 'at the bottom'],
              ]}
            />
          )}
          {mapping !== null && (
            <>
              <ChoiceField
                field="way"
                label="Written"
                options={[
                  ['mapping', `by ${mapping.code}`],
                  ['moves', 'as X and angle'],
                ]}
              />
              {wrap.way === 'mapping' && (
                <SwitchField field="slash" label="Slash, to see it flat in the graphics" />
              )}
            </>
          )}
        </div>
      )
    case 'tool':
      return (
        <div className="space-y-1">
          <Pair>
            <ToolField field="tool" label="Tool is T" kind="mill" />
            <NumberField
              field="turns"
              label="Spindle"
              suffix="rpm"
              computed={String(Math.round(sizes.rpm))}
            />
          </Pair>
          {wrap.what !== 'program' && (
            <>
              <Pair>
                <LengthField field="depth" label="Depth" hint="from the surface" />
                <LengthField field="stepDown" label="Step down" computed={say(sizes.depth)} />
              </Pair>
              <Pair>
                <LengthField field="feed" label="Feed" hint="over the face" />
                <LengthField field="plungeFeed" label="Feed down" computed={say(sizes.feed / 2)} />
              </Pair>
            </>
          )}
          {sizes.slowest < 0.995 && (
            <p>
              The rotary allows <span className="digits">{Math.round(100 * sizes.slowest)} %</span> of it at
              the slowest.
            </p>
          )}
        </div>
      )
    case 'cut':
      return (
        <div className="space-y-1">
          <Pair>
            <LengthField field="rPlane" label="Between lines" computed={say(sizes.r)} hint="above" />
            <LengthField field="clearance" label="Clearance" hint="above" />
          </Pair>
          <LengthField field="chord" label="Arcs as chords within" computed={say(sizes.chord)} />
          <SwitchField field="coolant" label="Coolant" />
        </div>
      )
  }
}

function LayoutFields({ wrap, unit, params }: { wrap: WrapDraft; unit: LengthUnit; params: WrapParams }) {
  switch (wrap.what) {
    case 'scale':
      return (
        <>
          <Pair>
            <NumberField field="divisions" label="Divisions" />
            {wrap.covers === 'part' ? (
              <NumberField field="span" label="over" suffix="°" />
            ) : (
              <LengthField field="shortLine" label="Line" />
            )}
          </Pair>
          <ChoiceField
            field="covers"
            label="Round"
            options={[
              ['turn', 'once round'],
              ['part', 'a part of it'],
            ]}
          />
          {wrap.covers === 'part' && <LengthField field="shortLine" label="Line" />}
          <Pair>
            <NumberField field="middleEvery" label="A longer one every" hint="0 for none" />
            {!isNone(wrap.middleEvery) && <LengthField field="middleLine" label="that long" />}
          </Pair>
          <Pair>
            <NumberField field="longEvery" label="The longest every" hint="0 for none" />
            {!isNone(wrap.longEvery) && <LengthField field="longLine" label="that long" />}
          </Pair>
        </>
      )
    case 'text':
      return (
        <>
          <WordsField field="text" label="The text" most={60} />
          <ChoiceField
            field="runs"
            label="It runs"
            options={[
              ['along', 'along the axis'],
              ['round', 'round'],
            ]}
          />
          <LengthField field="textHeight" label="Height" />
        </>
      )
    case 'slots':
      return (
        <>
          <ChoiceField
            field="slotsRun"
            label="They run"
            options={[
              ['along', 'along the axis'],
              ['round', 'round'],
            ]}
          />
          <Pair>
            <NumberField field="slots" label="Slots" hint={wrap.slotsRun === 'along' ? 'evenly round' : ''} />
            {wrap.slotsRun === 'along' ? (
              <LengthField field="slotLength" label="Length" hint="of the tool's way" />
            ) : (
              <NumberField field="slotSpan" label="Each goes round" suffix="°" />
            )}
          </Pair>
          {wrap.slotsRun === 'round' && wrap.slots.trim() !== '1' && (
            <LengthField field="slotPitch" label="One to the next, X" />
          )}
        </>
      )
    case 'holes':
      return (
        <Pair>
          <NumberField field="holes" label="Holes" hint="evenly round" />
          <NumberField field="rows" label="Rows" />
          {wrap.rows.trim() !== '1' && <LengthField field="rowSpacing" label="Row to row, X" />}
        </Pair>
      )
    case 'program':
      return <FlatProgram unit={unit} params={params} />
  }
}

/** A flat program, pasted or from a file; the lines of an outline are written as one. */
function FlatProgram({ unit, params }: { unit: LengthUnit; params: WrapParams }) {
  const flat = String(useAnswer('program'))
  const { change, problems, lit, onLit } = useCycleForm()
  const [told, setTold] = useState<string>()
  const take = async (file: File | undefined) => {
    if (!file) return
    setTold(undefined)
    try {
      const text = await file.text()
      let program = text
      if (/\.dxf$/i.test(file.name)) {
        const { paths, ...rest } = await pathsOfDxf(text, unit)
        const said = dxfSaid(rest, unit)
        if (paths.length === 0) {
          setTold(`${file.name} has no lines, arcs or curves. ${said}`.trim())
          return
        }
        if (said) setTold(`${file.name}: ${said}`)
        program = outlineProgram(paths, {
          unit,
          depth: params.depth.value,
          r: unit === 'inch' ? 0.05 : 1,
          feed: params.feed.value,
        })
      }
      if (program.length > LONGEST_FLAT)
        setTold(`${file.name} is longer than ${LONGEST_FLAT} characters: too long to wrap.`)
      else change('program', program)
    } catch (error) {
      setTold(
        error instanceof Error && error.name === 'Unclear'
          ? error.message
          : `${file.name} can't be read: it is no text, or it is damaged.`,
      )
    }
  }
  return (
    <div data-field="program" className="space-y-1">
      <ListField
        label="Flat program, Y round"
        value={flat}
        onChange={(next) => change('program', next.slice(0, LONGEST_FLAT))}
        onFocus={() => onLit('program')}
        lit={lit === 'program'}
        hint="Z zero on the surface; X and Y as drawn."
        wrong={problems.program && !problems.program.empty ? problems.program.says : undefined}
        rows={7}
        most={LONGEST_FLAT}
      />
      <OpenFile
        says="From a program or DXF file"
        label="Flat layout from a program or DXF file"
        accept=".nc,.txt,.tap,.cnc,.dxf"
        onFile={(file) => void take(file)}
      />
      {told && (
        <p role="status" className="font-semibold">
          {told}
        </p>
      )}
    </div>
  )
}
