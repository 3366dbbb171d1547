import { type ReactNode, useEffect, useState } from 'react'
import { Link } from 'react-router'
import { useHeld } from '../log/storage.ts'
import { CheckField } from '../reference/form-fields.tsx'
import { Choice } from '../ui/choice.tsx'
import { setDecimalComma, useDecimalComma } from '../ui/decimal-comma.ts'
import { type ChoiceName, type Chosen, choose, useChosen } from './choices.ts'
import { canStayAwake } from './stay-awake.ts'
import { tell } from './tell.ts'

/** How this tablet is set, and what its browser lets a page do. Each stays on this tablet. */
export function ThisTabletPage() {
  const comma = useDecimalComma()
  return (
    <div className="grid content-start gap-x-10 gap-y-5 py-3 lg:grid-cols-2">
      <h1 className="border-b-2 border-ink pb-2 text-2xl font-semibold lg:col-span-2">This tablet</h1>
      <section aria-labelledby="hands" className="space-y-4">
        <h2 id="hands" className="text-lg font-semibold">
          Under the hands
        </h2>
        <OneOf
          name="keypad"
          label="Keys on the screen for numbers"
          options={[
            { value: 'fingers', label: 'for fingers' },
            { value: 'always', label: 'always' },
            { value: 'never', label: 'never' },
          ]}
        />
        <CheckField
          label="A comma is a decimal point: 12,7 is 12.7"
          checked={comma}
          onChange={({ target }) => setDecimalComma(target.checked)}
        />
        <OneOf
          name="size"
          label="Words and keys"
          options={[
            { value: 'usual', label: 'as usual' },
            { value: 'large', label: 'large' },
          ]}
        />
        <OneOf
          name="ground"
          label="The ground of the page"
          options={[
            { value: 'day', label: 'paper' },
            { value: 'night', label: 'dark, for the night shift' },
            { value: 'system', label: 'as the tablet has it' },
          ]}
        />
        <OnOff name="awake" label="The screen stays on while a setup is open" />
        <OnOff
          name="sound"
          label="A tone when a position was taken, another when it was refused"
          then={() => tell('taken')}
        />
        <OnOff name="buzz" label="A buzz as well" then={() => tell('taken')} />
      </section>
      <Able />
      <p className="lg:col-span-2">
        <Link
          to="/wall"
          className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
        >
          Show the whole shop in large type, for a screen on the wall
        </Link>
      </p>
    </div>
  )
}

function OneOf<Name extends ChoiceName>({
  name,
  label,
  options,
}: {
  name: Name
  label: string
  options: { value: Chosen<Name>; label: string }[]
}) {
  const value = useChosen(name)
  return (
    <Choice<Chosen<Name>>
      label={label}
      value={value}
      onChange={(next) => choose(name, next)}
      options={options}
    />
  )
}

function OnOff({
  name,
  label,
  then,
}: {
  name: 'awake' | 'sound' | 'buzz'
  label: string
  then?: () => void
}) {
  const on = useChosen(name) === 'on'
  return (
    <CheckField
      label={label}
      checked={on}
      onChange={({ target }) => {
        choose(name, target.checked ? 'on' : 'off')
        if (target.checked) then?.()
      }}
    />
  )
}

/** Whether the page is kept on this tablet, as far as the browser tells. */
function useKeptHere() {
  const [kept, setKept] = useState(false)
  useEffect(() => {
    void navigator.serviceWorker?.getRegistration().then((found) => setKept(found?.active !== undefined))
  }, [])
  return kept
}

const OVER_HTTPS = 'Browsers allow it over https only, and at the server’s own PC.'

/** What the browser of this tablet lets a page do, and why not. */
function Able() {
  const keptHere = useKeptHere()
  const full = useHeld() > 0
  const secure = window.isSecureContext
  const lines: [does: string, is: boolean, why: ReactNode][] = [
    [
      'Opens while the server is away',
      keptHere,
      secure ? 'It is being fetched, or this browser cannot.' : OVER_HTTPS,
    ],
    ['Can be installed as an app, by the browser’s own menu', secure, OVER_HTTPS],
    ['Keeps the screen on', canStayAwake(), secure ? 'This browser cannot.' : OVER_HTTPS],
    [
      'Pastes by a key',
      secure && navigator.clipboard !== undefined,
      `${OVER_HTTPS} Hold a finger on a field to paste; copying works.`,
    ],
    ['Keeps what is recorded until the server has it', !full, 'Its storage is full or blocked: make room.'],
  ]
  return (
    <section aria-labelledby="able" className="space-y-2">
      <h2 id="able" className="text-lg font-semibold">
        What its browser can
      </h2>
      <dl>
        {lines.map(([does, is, why]) => (
          <div key={does} className="border-t border-rule py-2">
            <dt className="flex justify-between gap-4">
              {does} <b>{is ? 'yes' : 'no'}</b>
            </dt>
            {!is && <dd className="text-ink-soft">{why}</dd>}
          </div>
        ))}
      </dl>
    </section>
  )
}
