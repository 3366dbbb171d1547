import { formatWithUnit } from '@dogleg/core/quantity'
import { overrideAdvice, RUNS, type Run } from '@dogleg/core/ready'
import type { Setup } from '@dogleg/core/setup'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { Choice } from '../ui/choice.tsx'

const RUN_NAMES: Record<Run, string> = {
  'setting-up': 'Setting up',
  'first-run': 'First run',
  proven: 'Proven',
}

/** What to set the overrides to for what is about to be done, and what that means on this machine. */
export function OverridePanel({ setup }: { setup: Setup }) {
  const { traveler } = useOpenSetup()
  const zero = traveler.steps.find(({ step }) => step === 'zero')
  const [run, setRun] = useState<Run>(
    zero?.state === 'done' && setup.machine.kind === 'mill' ? 'first-run' : 'setting-up',
  )
  const advice = overrideAdvice(run, setup.machine, setup.unit)
  return (
    <section aria-label="Overrides">
      <h2 className="mb-1 text-lg font-semibold">Overrides for what comes now</h2>
      <Choice
        quiet
        label="What is about to be done"
        value={run}
        onChange={setRun}
        options={RUNS.map((value) => ({ value, label: RUN_NAMES[value] }))}
      />
      <p className="mt-2 flex items-baseline gap-3">
        <span className="digits text-4xl leading-none">{advice.rapid} %</span>
        <span className="text-lg">
          rapid{advice.singleBlock ? ', single block' : ''}
          {advice.inOneSecond && (
            <span className="block text-sm text-ink-soft">
              {advice.inOneSecond.axis} still goes{' '}
              <span className="digits">
                {formatWithUnit(advice.inOneSecond.length, setup.unit, { digits: 2 })}
              </span>{' '}
              in one second
            </span>
          )}
        </span>
      </p>
      <ul className="mt-1 list-disc pl-5 leading-snug">
        {advice.says.map((says) => (
          <li key={says}>{says}</li>
        ))}
      </ul>
    </section>
  )
}
