import { type Approach, adviseRun, judgeApproach, type Proof, type ProveCase } from '@dogleg/core/prove'
import { formatLength, readLength, unitSymbol } from '@dogleg/core/quantity'
import { useState } from 'react'
import { CheckField } from '../reference/form-fields.tsx'
import { LengthEntryField } from '../ui/entry-field.tsx'
import { Findings } from '../ui/verdict.tsx'
import { MeasureFirst } from './measure-first.tsx'

/** For each tool what the control should show as distance to go in Z on its first way down; and the overrides for the first run. */
export function ApproachPanel({ proof, of, proved }: { proof: Proof; of: ProveCase; proved: boolean }) {
  /** The tools that have come down, as the operator ticks them. */
  const [down, setDown] = useState<readonly number[]>([])
  const tools = proof.approaches.map(({ tool }) => tool)
  const allDown = tools.length > 0 && tools.every((tool) => down.includes(tool))
  const advice = adviseRun(proof.findings, { proved, allDown })
  return (
    <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_15rem]">
      <div className="space-y-4">
        {proof.approaches.length === 0 && (
          <p>
            {proof.top === undefined
              ? 'Place the part: heights are counted from its top.'
              : 'No tool comes down in Z.'}
          </p>
        )}
        {proof.approaches.map((approach) => (
          <ApproachCard key={approach.tool} approach={approach} of={of} proof={proof} />
        ))}
      </div>
      <section aria-label="First run" className="space-y-2">
        <h2 className="text-lg font-semibold">First run</h2>
        {advice.rapid > 0 && (
          <p className="text-xl">
            <span className="whitespace-nowrap">
              Rapid <span className="digits text-3xl">{advice.rapid}</span> %,
            </span>{' '}
            <span className="whitespace-nowrap">
              feed <span className="digits text-3xl">{advice.feed}</span> %
            </span>
          </p>
        )}
        {advice.says.map((says) => (
          <p key={says}>{says}</p>
        ))}
        {advice.rapid > 0 && tools.length > 0 && (
          <fieldset>
            <legend className="font-semibold">Has come down once</legend>
            {tools.map((tool) => (
              <CheckField
                key={tool}
                label={`T${tool}`}
                checked={down.includes(tool)}
                onChange={({ target }) =>
                  setDown(target.checked ? [...down, tool] : down.filter((each) => each !== tool))
                }
              />
            ))}
          </fieldset>
        )}
        <p className="border-t border-rule pt-2 text-sm text-ink-soft">
          The machine builder's manual, the shop's rules and local safety regulations come first.
        </p>
      </section>
    </div>
  )
}

function ApproachCard({ approach, of, proof }: { approach: Approach; of: ProveCase; proof: Proof }) {
  const [stop, setStop] = useState(0)
  const [shown, setShown] = useState('')
  const { unit } = of
  const { tool, stops } = approach
  const at = stops[Math.min(stop, stops.length - 1)]
  if (!at) return null
  const name = of.tools.find(({ number }) => number === tool)?.name
  const typed = readLength(shown, unit)
  const { motion } = proof.program
  const state = motion.states[motion.state[motion.blockRow[at.block] ?? 0] ?? 0]
  const judged =
    shown.trim() !== '' && typed.ok && !at.unknown?.toGo
      ? judgeApproach(at.toGo, typed.value, {
          unit,
          tool,
          lengths: new Map(of.lengths.map(({ tool, length }) => [tool, length])),
          offsetsZ: new Map(
            of.offsets.flatMap(({ name, axes }) => (axes.Z === undefined ? [] : [[name, axes.Z] as const])),
          ),
          offset: state?.offset ?? of.frame,
        })
      : undefined
  return (
    <section aria-label={`T${tool} comes down`} className="@container border-t border-rule pt-2">
      <h2 className="text-lg font-semibold">
        T{tool} {name && <span className="font-normal">{name}</span>} comes down the first time
      </h2>
      <div className="grid gap-x-6 @min-[34rem]:grid-cols-[1fr_13rem]">
        <table className="w-full">
          <thead>
            <tr className="text-left text-sm text-ink-soft">
              <th scope="col">Before</th>
              <th scope="col" className="text-right">
                Z to go
              </th>
              <th scope="col" className="text-right">
                tip, over the part
              </th>
            </tr>
          </thead>
          <tbody>
            {stops.map(({ line, toGo, above, unknown }, index) => (
              <tr key={`${line}-${above}`} className={index === stop ? 'bg-stock-shade' : ''}>
                <th scope="row" className="text-left font-normal">
                  <button
                    type="button"
                    aria-pressed={index === stop}
                    onClick={() => setStop(index)}
                    className="min-h-11 font-semibold underline decoration-rule underline-offset-4"
                  >
                    line {line}
                  </button>
                </th>
                <td className="digits text-right text-2xl">
                  {unknown?.toGo ? (
                    <span className="font-sans text-lg">unknown</span>
                  ) : (
                    formatLength(toGo, unit)
                  )}
                </td>
                <td className="text-right whitespace-nowrap">
                  {unknown?.before ? (
                    'unknown'
                  ) : (
                    <>
                      <span className="digits">{formatLength(Math.abs(above), unit)}</span>{' '}
                      {above < 0 ? 'below' : 'above'}
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div>
          {at.unknown?.toGo ? (
            <MeasureFirst tool={at.unknown.tool} />
          ) : (
            <LengthEntryField
              label={`What the control shows, ${unitSymbol(unit)}`}
              unit={unit}
              value={shown}
              onChange={setShown}
              hint={`Before line ${at.line}: ${formatLength(at.toGo, unit)} is expected.`}
            />
          )}
        </div>
      </div>
      {judged && <Findings findings={[judged]} />}
    </section>
  )
}
