import { offsetOf, otherAtControl, palletProgramRests } from '@dogleg/core/setup'
import { useOpenSetup } from '../../log/open-setup.ts'
import { TakeProgram } from '../../program/take-program.tsx'

/** What stands at the control with another text than the pallets run, and the keys that take theirs there. */
export function AtControl() {
  const { setup } = useOpenSetup()
  return otherAtControl(setup).map(({ pallet, title, text }) => (
    <section
      key={title}
      aria-label={`${title} at the control`}
      className="max-w-3xl space-y-1 border-b border-rule py-1"
    >
      <p className="font-semibold">
        What stands at the control under the name {title} is another text than pallet {pallet} runs: take this
        one there.
      </p>
      <TakeProgram
        setup={setup}
        offset={offsetOf(setup, setup.code.taken.get(title)?.entry.offset ?? 'G54')}
        what="coded"
        title={title}
        rests={palletProgramRests(setup, title)}
        text={text}
      />
    </section>
  ))
}
