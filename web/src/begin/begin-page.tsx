import { Eye, Wrench } from 'lucide-react'
import { Link, useNavigate } from 'react-router'
import { useShop } from '../log/use-shop.ts'
import { lookRound } from './looked-round.ts'

const DOOR = 'flex min-h-56 flex-col gap-3 rounded-sm border-2 border-ink p-6 text-left hover:bg-stock-shade'

/** The first start asks one thing: look round the demo, or set up an own shop. */
export function BeginPage() {
  const navigate = useNavigate()
  const { data } = useShop()
  return (
    <div className="mx-auto flex w-full max-w-5xl flex-1 flex-col justify-center gap-6 py-6">
      <h1 className="text-4xl font-semibold">What would you like to do?</h1>
      {data && !data.begins && (
        <p role="status" className="border-2 border-rule p-3">
          This server has its shop already.{' '}
          <Link to="/" className="font-semibold underline underline-offset-4">
            To the shop
          </Link>
        </p>
      )}
      <div className="grid gap-5 md:grid-cols-2">
        <button
          type="button"
          className={DOOR}
          onClick={() => {
            lookRound()
            void navigate('/')
          }}
        >
          <Eye aria-hidden size={40} />
          <span className="text-2xl font-semibold">Look round the demo</span>
          <span className="text-lg">
            A made-up shop with machines, setups and programs. Anything may be tried in it: nothing of it
            comes into yours.
          </span>
        </button>
        <Link to="/begin/own" className={`${DOOR} ${data?.begins ? '' : 'pointer-events-none opacity-60'}`}>
          <Wrench aria-hidden size={40} />
          <span className="text-2xl font-semibold">Set up your own</span>
          <span className="text-lg">
            A machine, its unit, its control, its first tools, and who leads: five short pages, two minutes.
            All of it can be changed later.
          </span>
        </Link>
      </div>
    </div>
  )
}
