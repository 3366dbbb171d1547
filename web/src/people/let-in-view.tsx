import { Navigate } from 'react-router'
import { useSession } from '../log/session.ts'

/** Where a scanned code leads: the screen over it takes the code; once the tablet is let in, the shop. */
export function LetInView() {
  const { signs, tablet } = useSession()
  return !signs || tablet ? <Navigate to="/" replace /> : null
}
