import { type Collet, closingRatio } from '@dogleg/core/hold'
import { fixedDigits } from '@dogleg/core/quantity'

const FROM: Record<Collet['ratio']['from'], string> = {
  angle: 'exact, from the cone',
  rule: 'by rule of thumb',
  measured: 'measured',
}

interface RatioPairProps {
  collet: Pick<Collet, 'closing' | 'ratio' | 'ruleOfThumb'>
  /** As it was measured in this setup. */
  measured?: { value: number; doubt: number } | undefined
}

/** The ratio of the library, the rule of thumb and what was measured, side by side: movement for each unit of diameter. */
export function RatioPair({ collet, measured }: RatioPairProps) {
  const { value, doubt } = closingRatio(collet)
  const { ratio, ruleOfThumb, closing } = collet
  const stays = closing === 'dead-length'
  return (
    <dl className="flex flex-wrap gap-x-6">
      {stays && <Ratio name="the collet stays" value="0" />}
      <Ratio
        name={`${stays ? 'its sleeve, ' : ''}${FROM[ratio.from]}`}
        value={fixedDigits(value, ratio.from === 'rule' ? 1 : 3)}
        doubt={doubt > 0 ? fixedDigits(doubt, 2) : undefined}
      />
      {!stays && ruleOfThumb !== null && ratio.from !== 'rule' && (
        <Ratio name="rule of thumb" value={fixedDigits(ruleOfThumb, ruleOfThumb % 1 === 0 ? 0 : 1)} />
      )}
      {measured && (
        <Ratio
          name="measured here"
          value={fixedDigits(measured.value, 2)}
          doubt={fixedDigits(measured.doubt, 2)}
        />
      )}
    </dl>
  )
}

function Ratio({ name, value, doubt }: { name: string; value: string; doubt?: string | undefined }) {
  return (
    <div>
      <dt className="text-sm text-ink-soft">{name}</dt>
      <dd className="digits text-2xl">
        {value}
        <span className="ml-1 text-base text-ink-soft">to 1</span>
        {doubt && <span className="ml-1 text-base">±{doubt}</span>}
      </dd>
    </div>
  )
}
