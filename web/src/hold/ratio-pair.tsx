import { type Collet, closingRatio } from '@dogleg/core/hold'
import { fixedDigits } from '@dogleg/core/quantity'

const FROM: Record<Collet['ratio']['from'], string> = {
  angle: 'exact, from the cone',
  rule: 'by rule of thumb',
  measured: 'measured',
}

/** The ratio that is reckoned with and the rule of thumb, side by side: movement along the bar for each unit of diameter. */
export function RatioPair({ collet }: { collet: Pick<Collet, 'closing' | 'ratio' | 'ruleOfThumb'> }) {
  const { value, doubt } = closingRatio(collet)
  const { ratio, ruleOfThumb, closing } = collet
  return (
    <dl className="grid grid-cols-2 gap-x-4">
      <div>
        <dt className="text-sm text-ink-soft">
          {closing === 'dead-length' ? 'its sleeve, ' : ''}
          {FROM[ratio.from]}
        </dt>
        <dd className="digits text-2xl">
          {fixedDigits(value, 3)}
          <span className="ml-1 text-base text-ink-soft">to 1</span>
          {doubt > 0 && <span className="ml-2 text-base">±{fixedDigits(doubt, 2)}</span>}
        </dd>
      </div>
      {closing === 'dead-length' && (
        <div>
          <dt className="text-sm text-ink-soft">the collet stays</dt>
          <dd className="digits text-2xl">0</dd>
        </div>
      )}
      {closing !== 'dead-length' && ruleOfThumb !== null && ratio.from !== 'rule' && (
        <div>
          <dt className="text-sm text-ink-soft">rule of thumb</dt>
          <dd className="digits text-2xl">
            {fixedDigits(ruleOfThumb, ruleOfThumb % 1 === 0 ? 0 : 1)}
            <span className="ml-1 text-base text-ink-soft">to 1</span>
          </dd>
        </div>
      )}
    </dl>
  )
}
