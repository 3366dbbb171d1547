/** The code in the address that a lead's QR code led to, as the page was opened: it goes on to another address at once. */
let scanned = location.pathname === '/let-in' && /^#\d{6}$/.test(location.hash) ? location.hash.slice(1) : ''

/** That code, once: it lets one tablet in. */
export function takeScanned(): string {
  const code = scanned
  scanned = ''
  return code
}
