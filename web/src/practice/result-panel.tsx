import { formatLength } from '@dogleg/core/quantity'
import { goodHandErrors, type PracticeResult } from '@dogleg/core/simulated'
import { Link } from 'react-router'
import { Button } from '../ui/button.tsx'
import { Duration } from '../ui/duration.tsx'
import { VerdictMark } from '../ui/verdict.tsx'

interface ResultPanelProps {
  result: PracticeResult
  kept: boolean
  onAgain: (seed?: number) => void
}

/** What came of an exercise: how far off, the time, and what a good hand does with the same piece. */
export function ResultPanel({ result, kept, onAgain }: ResultPanelProps) {
  const hand = goodHandErrors(result)
  return (
    <section aria-label="Result" className="space-y-3">
      <VerdictMark verdict={result.good ? 'good' : 'look'} />
      <table className="w-full text-base">
        <thead>
          <tr className="border-b border-ink-soft text-left">
            <th scope="col">Value</th>
            <th scope="col" className="text-right">
              off by
            </th>
            <th scope="col" className="text-right">
              a good hand
            </th>
          </tr>
        </thead>
        <tbody>
          {result.figures.map(({ name, found, truth, error, unit, good }, index) => (
            <tr key={name} className="border-b border-rule align-baseline">
              <th scope="row" className="py-1 text-left">
                {name}
                <span className="block text-sm leading-4 font-normal text-ink-soft">
                  {found}
                  <br />
                  truly {truth}
                </span>
              </th>
              <td className={`digits py-1 text-right text-xl ${good ? '' : 'font-semibold'}`}>
                {error !== null && unit ? (
                  formatLength(error, unit, { plus: true })
                ) : (
                  <span className="font-sans">{good ? 'right' : 'wrong'}</span>
                )}
              </td>
              <td className="digits py-1 text-right text-xl">
                {hand[index] ? (
                  formatLength(hand[index].error, hand[index].unit)
                ) : (
                  <span className="font-sans">right</span>
                )}
              </td>
            </tr>
          ))}
          <tr className="align-baseline">
            <th scope="row" className="py-1 text-left">
              Time
            </th>
            <td className="text-right text-lg">
              <Duration seconds={result.seconds} />
            </td>
            <td className="pl-3 text-right text-lg">
              {result.goodHand.seconds > 0 ? <Duration seconds={result.goodHand.seconds} /> : '-'}
            </td>
          </tr>
        </tbody>
      </table>
      {result.goodHand.seconds > 0 && (
        <p className="text-sm text-ink-soft">
          The good hand’s time is calculated from its moves at this machine, without reading and thinking.
        </p>
      )}
      {result.hints > 0 && (
        <p className="text-sm text-ink-soft">
          With {result.hints === 1 ? 'one hint' : `${result.hints} hints`}.
        </p>
      )}
      {result.remarks.length > 0 && (
        <ul className="list-disc space-y-1 pl-5 font-semibold">
          {result.remarks.map((remark) => (
            <li key={remark}>{remark}</li>
          ))}
        </ul>
      )}
      {!kept && (
        <p role="alert" className="font-semibold">
          The logbook file cannot be written: this result is not kept.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="primary" onClick={() => onAgain()}>
          Another piece
        </Button>
        <Button onClick={() => onAgain(result.seed)}>The same piece again</Button>
        <Link
          to="/practice"
          className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
        >
          All exercises
        </Link>
      </div>
    </section>
  )
}
