import { byExercise, EXERCISES, errorsInWords, peopleOf } from '@dogleg/core/simulated'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../log/api.ts'
import { useOperator } from '../log/operator.ts'
import { useRowsInForce } from '../log/rows.ts'
import { Duration } from '../ui/duration.tsx'
import { VerdictMark } from '../ui/verdict.tsx'
import { When } from '../ui/when.tsx'

const WHERE = { mill: 'mill', lathe: 'lathe', paper: 'on paper' }

/** The exercises, with what came of them for one person; and the simulated doubles of the shop's machines. */
export function PracticePage() {
  const operator = useOperator()
  const [chosen, setChosen] = useState<string>()
  const { data, error } = useQuery({ queryKey: ['practice'], queryFn: api.practice })
  const machines = useRowsInForce('machines')
  const results = data?.results ?? []
  const by = chosen ?? operator
  const people = peopleOf(results)
  const done = byExercise(results, by)
  return (
    <div className="py-2">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h1 className="text-2xl font-semibold">Practice</h1>
        <p>
          Each piece is made up anew and lies where nobody knows. Nothing can be harmed. What is kept: how far
          off you were, and the time.
        </p>
        {people.length > 0 && (
          <label className="ml-auto font-semibold">
            Results of{' '}
            <select
              value={by}
              onChange={({ target }) => setChosen(target.value)}
              className="h-11 rounded-sm border border-ink-soft bg-white/60 px-2"
            >
              {[...new Set([...(by ? [by] : []), ...people])].map((each) => (
                <option key={each}>{each}</option>
              ))}
            </select>
          </label>
        )}
      </div>
      {error && (
        <p role="alert" className="border-2 border-ink p-2 font-semibold">
          {error.message}
        </p>
      )}
      <ol className="border-t-2 border-ink">
        {EXERCISES.map(({ id, title, learns, machine }, index) => {
          const result = done.get(id)
          return (
            <li key={id} className="border-b border-rule">
              <Link
                to={`/practice/${id}`}
                className="grid min-h-11 items-center gap-x-5 px-2 py-0.5 hover:bg-stock-shade md:grid-cols-[minmax(0,1fr)_5rem_minmax(0,1fr)]"
              >
                <span>
                  <span className="block text-lg leading-6 font-semibold">
                    {index + 1}. {title}
                  </span>
                  <span className="block text-sm leading-4 text-ink-soft">{learns}</span>
                </span>
                <span className="text-sm text-ink-soft">{WHERE[machine ?? 'paper']}</span>
                {result ? (
                  <span className="flex flex-wrap items-center gap-x-3 text-sm leading-5">
                    <VerdictMark verdict={result.last.good ? 'good' : 'look'} />
                    <span className="min-w-0 flex-1">
                      {errorsInWords(result.last)}, <Duration seconds={result.last.seconds} />.{' '}
                      <span className="text-ink-soft">
                        <When at={result.last.at} />
                        {result.last.hints > 0 &&
                          `; ${result.last.hints} ${result.last.hints === 1 ? 'hint' : 'hints'}`}
                        {result.times > 1 && `; ${result.good} of ${result.times} good`}
                      </span>
                    </span>
                  </span>
                ) : (
                  <span className="text-sm text-ink-soft">
                    {index === 0 && done.size === 0 ? 'Begin here.' : 'Not done yet.'}
                  </span>
                )}
              </Link>
            </li>
          )
        })}
      </ol>
      <p className="flex flex-wrap items-center gap-x-4 pt-2">
        <span className="font-semibold">The shop’s machines, simulated:</span>
        {machines.map(({ id, name }) => (
          <Link
            key={id}
            to={`/machines/${id}/simulated`}
            className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
          >
            {name}
          </Link>
        ))}
        <span className="text-ink-soft">to do a whole setup without a machine.</span>
      </p>
    </div>
  )
}
