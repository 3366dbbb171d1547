import {
  type EngraveDraft,
  type EngraveSizes,
  hasSerial,
  LONGEST_TEXT,
  widthFactorFrom,
} from '@dogleg/core/cycles/engraving'
import { formatLength, type LengthUnit, readLength } from '@dogleg/core/quantity'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { LeadsOnly } from '../people/leads-only.tsx'
import { useSave } from '../reference/use-save.ts'
import { Button } from '../ui/button.tsx'
import { LengthEntryField } from '../ui/entry-field.tsx'
import {
  ChoiceField,
  LengthField,
  NumberField,
  Pair,
  SwitchField,
  useAnswers,
  useCycleForm,
  WordsField,
} from './cycle-field.tsx'
import { SerialPanel } from './serial-panel.tsx'
import { ToolField } from './tool-field.tsx'

const ENGRAVE_PARTS = [
  ['text', 'Text'],
  ['letters', 'Letters'],
  ['tool', 'Tool'],
  ['cut', 'Cut'],
  ['serial', 'Serial'],
] as const
export type EngravePart = (typeof ENGRAVE_PARTS)[number][0]

const PART_OF: Record<string, EngravePart> = {
  height: 'letters',
  way: 'letters',
  by: 'letters',
  lineWidth: 'letters',
  depth: 'letters',
  tool: 'tool',
  toolAngle: 'tool',
  tip: 'tool',
  surface: 'tool',
  surfaceDiameter: 'tool',
  top: 'cut',
  clearance: 'cut',
  rPlane: 'cut',
  turns: 'cut',
  feed: 'cut',
  plungeFeed: 'cut',
  coolant: 'cut',
  sharp: 'cut',
  tolerance: 'cut',
  serial: 'serial',
  step: 'serial',
  counter: 'serial',
}
export const engravePartOf = (field: string): EngravePart => PART_OF[field] ?? 'text'

/** The parts that the form of a text has: a serial number only where the text carries one. */
export const engraveParts = (text: string) =>
  ENGRAVE_PARTS.filter(([part]) => part !== 'serial' || hasSerial(text))

interface EngraveFormProps {
  part: EngravePart
  sizes: EngraveSizes
  unit: LengthUnit
}

const START: Record<EngraveDraft['sits'], readonly [x: string, y: string]> = {
  box: ['Box corner, X', 'Y'],
  line: ['Line from X', 'Y'],
  start: ['First letter, X', 'Y'],
  arc: ['Centre, X', 'Y'],
}

/** One part of the form of a text. */
export function EngraveForm({ part, sizes, unit }: EngraveFormProps) {
  const { change } = useCycleForm()
  const draft = useAnswers()
  const { setup } = useOpenSetup()
  const { reading } = setup.profile
  const text = draft as unknown as EngraveDraft
  const say = (value: number) => formatLength(value, unit)
  const [labelX, labelY] = START[text.sits]
  switch (part) {
    case 'text':
      return (
        <div className="space-y-1">
          <WordsField
            field="text"
            label="The text"
            most={LONGEST_TEXT}
            hint={
              hasSerial(text.text) ? 'a serial number: its digits are #' : 'one # a digit for a serial number'
            }
          />
          <ChoiceField
            quiet
            field="sits"
            label="Where"
            options={[
              ['box', 'in a box'],
              ['line', 'on a line'],
              ['start', 'from here'],
              ['arc', 'on an arc'],
            ]}
          />
          <Pair>
            <LengthField field="x" label={labelX} />
            <LengthField field="y" label={labelY} />
          </Pair>
          {text.sits === 'box' && (
            <Pair>
              <LengthField field="boxWidth" label="Box width" />
              <LengthField field="boxHeight" label="Box height" />
            </Pair>
          )}
          {text.sits === 'line' && (
            <Pair>
              <LengthField field="toX" label="to X" />
              <LengthField field="toY" label="Y" />
            </Pair>
          )}
          {text.sits === 'arc' && (
            <Pair>
              <LengthField field="diameter" label="Diameter" hint="of the base line" />
              <NumberField field="angle" label="Middle at" suffix="°" hint="90 is the top" />
            </Pair>
          )}
          {text.sits === 'line' && (
            <ChoiceField
              quiet
              field="align"
              label="At its"
              options={[
                ['left', 'start'],
                ['middle', 'middle'],
                ['right', 'end'],
              ]}
            />
          )}
          {text.sits === 'arc' && (
            <ChoiceField
              quiet
              field="reads"
              label="Read from"
              options={[
                ['outside', 'outside'],
                ['inside', 'inside'],
              ]}
            />
          )}
          {(text.sits === 'box' || text.sits === 'start') && (
            <NumberField field="angle" label="Turned" suffix="°" hint="counter-clockwise" />
          )}
        </div>
      )
    case 'letters':
      return (
        <div className="space-y-1">
          <Pair>
            <LengthField field="height" label="Height" computed={say(sizes.height)} />
            {text.by === 'width' ? (
              <LengthField field="lineWidth" label="Line" computed={say(sizes.lineWidth)} />
            ) : (
              <LengthField field="depth" label="Depth" computed={say(sizes.depth)} />
            )}
          </Pair>
          <ChoiceField
            field="by"
            label="Depth"
            options={[
              ['width', 'from the line'],
              ['depth', 'as typed'],
            ]}
          />
          <p className="text-lg">
            <span className="digits text-3xl font-semibold">{say(sizes.depth)}</span> deep, line{' '}
            <span className="digits">{say(sizes.lineWidth)}</span>:{' '}
            <span className="digits">1/{sizes.ratio.toFixed(1)}</span> of the height
          </p>
          {reading.text !== null && text.sits !== 'arc' && (
            <>
              <ChoiceField
                field="way"
                label="Letters"
                options={[
                  ['cycle', `by ${reading.text}`],
                  ['moves', 'written out'],
                ]}
              />
              {text.way === 'cycle' && <MeasuredWidth sizes={sizes} unit={unit} />}
            </>
          )}
        </div>
      )
    case 'tool':
      return (
        <div className="space-y-1">
          <Pair>
            <ToolField field="tool" label="Tool is T" kind="engraver" />
            <NumberField field="toolAngle" label="Point" suffix="°" hint="included" />
          </Pair>
          <Pair>
            <LengthField field="tip" label="Flat of the tip" />
          </Pair>
          <ChoiceField
            field="surface"
            label="The face is"
            options={[
              ['flat', 'flat'],
              ['along', 'round, along'],
              ['across', 'round, across'],
            ]}
          />
          {text.surface !== 'flat' && <LengthField field="surfaceDiameter" label="Its diameter" />}
        </div>
      )
    case 'cut':
      return (
        <div className="space-y-1">
          <Pair>
            <NumberField
              field="turns"
              label="Spindle"
              suffix="rpm"
              computed={String(Math.round(sizes.rpm))}
            />
            <LengthField field="feed" label="Feed" computed={say(sizes.feed)} hint="a minute" />
          </Pair>
          <Pair>
            <LengthField field="plungeFeed" label="Feed down" computed={say(sizes.plungeFeed)} />
            <LengthField field="rPlane" label="Between strokes" computed={say(sizes.r - sizes.top)} />
          </Pair>
          <Pair>
            <LengthField field="top" label="Top of the part, Z" />
            <LengthField field="clearance" label="Clearance" />
          </Pair>
          {reading.pathTolerance !== null && (
            <>
              <SwitchField field="sharp" label="Hold the corners closer" />
              {text.sharp && (
                <LengthField
                  field="tolerance"
                  label={`Within, ${reading.pathTolerance} E`}
                  {...(sizes.tolerance === null ? {} : { computed: say(sizes.tolerance) })}
                />
              )}
            </>
          )}
          <SwitchField field="coolant" label="Coolant" />
        </div>
      )
    case 'serial':
      return (
        <SerialPanel
          draft={text}
          counts={!sizes.moves && reading.lettering.counts}
          onNext={(serial) => change('serial', serial)}
        />
      )
  }
}

/** One text that was engraved on this control tells how wide its letters are: the factor goes to the profile. */
function MeasuredWidth({ sizes, unit }: { sizes: EngraveSizes; unit: LengthUnit }) {
  const { setup } = useOpenSetup()
  const { profile } = setup
  const { widthFactor } = profile.reading.lettering
  const [typed, setTyped] = useState('')
  const { save } = useSave('profiles')
  const read = readLength(typed, unit)
  const factor = read.ok ? widthFactorFrom(sizes.text, sizes.height, sizes.lineWidth, read.value) : undefined
  const fits = factor !== undefined && factor >= 0.2 && factor <= 3
  return (
    <div className="border-t border-rule pt-1">
      <p>
        {widthFactor === null ? (
          <>
            About <span className="digits font-semibold">{formatLength(sizes.width, unit)}</span> long, within{' '}
            <span className="digits">{Math.round(100 * sizes.doubt)} %</span>. Engrave it on scrap, and tell
            its length:
          </>
        ) : (
          <>
            <span className="digits font-semibold">{formatLength(sizes.width, unit)}</span> long: this
            control’s letters are <span className="digits">{Number(widthFactor.toFixed(4))}</span> times as
            wide.
          </>
        )}
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-3">
        <LengthEntryField
          label="Measured, over all"
          unit={unit}
          value={typed}
          onChange={setTyped}
          narrow
          wrong={
            read.ok && !fits
              ? 'That cannot be this text: it would be less than 0.2 or more than 3 times as wide.'
              : undefined
          }
        />
        <LeadsOnly does="keeps it">
          <Button
            className="mt-6.5 h-12"
            disabled={!fits || save.isPending}
            onClick={() => {
              if (factor === undefined) return
              const { reading } = profile
              save.mutate(
                {
                  row: {
                    ...profile,
                    reading: {
                      ...reading,
                      lettering: { ...reading.lettering, widthFactor: Number(factor.toFixed(5)) },
                    },
                  },
                },
                { onSuccess: () => setTyped('') },
              )
            }}
          >
            Keep it
          </Button>
        </LeadsOnly>
      </div>
      {save.error && <p role="alert">{save.error.message}</p>}
    </div>
  )
}
