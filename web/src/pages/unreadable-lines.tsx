import { Link } from 'react-router'

/** Setups of a list that cannot be worked out, each with why, and the way to what stands of it. */
export const UnreadableLines = ({ setups }: { setups: readonly { id: string; says: string }[] }) =>
  setups.map(({ id, says }) => (
    <p key={id} className="border-b border-rule py-3">
      <Link to={`/setups/${id}`} className="font-semibold underline underline-offset-4">
        {id}
      </Link>{' '}
      {says}
    </p>
  ))
