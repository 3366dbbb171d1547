import { Navigate } from 'react-router'
// Read before the address is left.
import './scanned.ts'

/** Where a scanned code leads: to the shop, and the screen over that takes the code. */
export const LetInView = () => <Navigate to="/" replace />
