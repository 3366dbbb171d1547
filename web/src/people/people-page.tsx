import { useLeads, useSession } from '../log/session.ts'
import { PeopleSection } from './people-section.tsx'
import { TabletsSection } from './tablets-section.tsx'

/** Who is of this shop and what they may do, and which tablets are let in. */
export function PeoplePage() {
  const leads = useLeads()
  const { signs, person } = useSession()
  return (
    <div className="grid content-start gap-x-10 gap-y-5 py-3 lg:grid-cols-2">
      <h1 className="border-b-2 border-ink pb-2 text-2xl font-semibold lg:col-span-2">People and tablets</h1>
      {leads ? (
        <>
          <PeopleSection />
          {signs ? <TabletsSection /> : <AtOnePc />}
        </>
      ) : (
        <p className="text-lg lg:col-span-2">
          A lead of the shop looks after its people and tablets. {person?.initials} may not: a lead signs in
          here by the initials above.
        </p>
      )}
    </div>
  )
}

/** What is to be done before tablets can come. */
function AtOnePc() {
  const command = 'block rounded-sm bg-stock-shade px-2 py-1 font-mono text-sm break-all'
  return (
    <section aria-labelledby="tablets" className="space-y-3">
      <h2 id="tablets" className="text-lg font-semibold">
        Tablets
      </h2>
      <p>
        Dogleg listens to this PC only: nobody signs in, and whoever is at it may do everything. To let
        tablets in:
      </p>
      <ol className="list-decimal space-y-2 pl-6">
        <li>Name at least one lead here, with a PIN.</li>
        <li>
          Stop Dogleg at the server’s own keyboard, and start it with where it listens and what it is called:
          <code className={command}>DOGLEG_HOST=0.0.0.0 DOGLEG_HOSTS=shop-pc npm start</code>
          From then on people sign in.
        </li>
        <li>
          Let in the first tablet by a code:
          <code className={command}>npm run people tablet</code>
          Further ones are let in on this page.
        </li>
      </ol>
    </section>
  )
}
