import { type Identified, type IdentifiedAs, identify, readIdentification } from '@dogleg/core/pickup'
import { formatLength } from '@dogleg/core/quantity'
import { CircleCheckBig, OctagonX, RotateCcw } from 'lucide-react'
import { useMemo } from 'react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { Button } from '../ui/button.tsx'
import { FactLine } from '../ui/fact-line.tsx'
import { ListField } from '../ui/list-field.tsx'
import { Findings } from '../ui/verdict.tsx'

const WORDS: Record<IdentifiedAs, { says: string; look: string; Icon: typeof OctagonX }> = {
  right: { says: 'The right part, the right way round', look: 'text-verified', Icon: CircleCheckBig },
  turned: { says: 'The part lies the other way round', look: 'text-hazard', Icon: RotateCcw },
  wrong: { says: 'Not the part of the drawing', look: 'text-hazard', Icon: OctagonX },
}

/** What was measured against the drawing, a bar a distance, and what it says of the part. */
function Compared({ of, unit }: { of: Identified; unit: 'inch' | 'mm' }) {
  const { says, look, Icon } = WORDS[of.as]
  return (
    <div className="space-y-3">
      <p className={`flex items-center gap-2 text-2xl font-semibold ${look}`}>
        <Icon aria-hidden /> {says}
      </p>
      <table className="w-full">
        <thead>
          <tr className="border-b border-ink-soft text-left">
            {['Distance', 'Measured', 'Drawing', 'Off', 'Within'].map((title) => (
              <th key={title} scope="col" className="py-1 pr-2">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {of.distances.map(({ name, measured, drawing, within, off, fits, fitsTurned }) => (
            <tr key={name} className="border-b border-rule">
              <th scope="row" className="py-1 pr-2 text-left">
                {name}
              </th>
              <td className="digits py-1 pr-2 text-xl">{formatLength(measured, unit)}</td>
              <td className="digits py-1 pr-2 text-xl">{formatLength(drawing, unit)}</td>
              <td className={`digits py-1 pr-2 text-xl ${fits ? '' : 'font-semibold text-hazard'}`}>
                {formatLength(off, unit, { plus: true })}
              </td>
              <td className="py-1">
                <span className="digits">{formatLength(within, unit)}</span>{' '}
                <span className="font-semibold">
                  {fits ? 'fits' : fitsTurned ? 'fits turned round' : 'does not fit'}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Findings findings={of.findings} />
    </div>
  )
}

/** Is it the right part, the right way round? Distances between its features against the drawing's, as a fact. */
export function PartPanel() {
  const { setup } = useOpenSetup()
  const { unit, part } = setup
  const [text, change, clear] = useKept<string>(`${setup.id}.part`, z.string(), () => '')
  const signed = useSigned()
  const live = useMemo(() => {
    const read = readIdentification(text, unit)
    if (!read.ok) return { told: read }
    return { entry: { kind: 'identified' as const, ...read.value }, of: identify(read.value, unit) }
  }, [text, unit])
  const submit = () => {
    const { entry } = live
    if (!entry) return
    signed(() => {
      record(setup.id, entry)
      clear('')
    })
  }
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 xl:grid-cols-[24rem_1fr]">
      <form
        aria-label="Right part"
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <h2 className="text-xl font-semibold">Is it the right part, the right way round?</h2>
        <p>
          Measure distances between features that another part, or this one turned round, would not have, in{' '}
          {unit === 'inch' ? 'inches' : 'mm'}.
        </p>
        <ListField
          label="Name, measured, drawing, within, turned round"
          value={text}
          onChange={change}
          rows={5}
          hint="A line for each, such as: A-B 2.0004 2.000 .005 3.000. The last number may be left out."
          wrong={live.told && !live.told.empty ? live.told.says : undefined}
          understood={live.of ? `${live.of.distances.length} understood` : undefined}
        />
        <GoesStale entry={live.entry} />
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!live.entry}
          className="min-h-14 w-full text-lg"
        >
          Record what it is
        </Button>
      </form>
      <section aria-label="What it is" className="min-w-0 space-y-3">
        {live.of ? (
          <Compared of={live.of} unit={unit} />
        ) : part ? (
          <>
            {part.freshness.state === 'fresh' && <Compared of={part} unit={unit} />}
            <FactLine fact={part} />
          </>
        ) : (
          <p className="max-w-prose text-ink-soft">
            Nobody has looked yet. Once it is known to be the wrong part, or to lie the wrong way round, no
            program is given out for this setup.
          </p>
        )}
      </section>
    </div>
  )
}
