import { encodeQR } from 'qr'

const escaped = (text: string) => text.replace(/[&<>"']/g, (each) => `&#${each.charCodeAt(0)};`)

/** What the page says, and where. */
export interface Trust {
  /** Where Dogleg is over https. */
  secure: string
  /** This page, for other tablets. */
  here: string
  /** SHA-256 of the authority, by which it is compared by eye. */
  fingerprint: string
}

export const AUTHORITY_FILE = '/dogleg-authority.crt'

/** How the usual systems come to trust an authority, by what stands on their screens; menus move, so that each says what to look for. */
const STEPS: readonly { of: string; steps: readonly string[] }[] = [
  {
    of: 'A tablet or phone whose Settings know “CA certificate”',
    steps: [
      'Load the file above; it is kept among the downloads.',
      'Open Settings, search for “CA certificate”, and choose Install a certificate, then CA certificate.',
      'It warns: go on. Choose the file that was loaded.',
    ],
  },
  {
    of: 'A tablet or phone whose Settings say “Profile Downloaded”',
    steps: [
      'Load the file above in the browser that came with it, and allow the profile.',
      'Open Settings: Profile Downloaded stands near the top. Install it.',
      'Then Settings, General, About, Certificate Trust Settings: switch it on.',
    ],
  },
  {
    of: 'A PC on which the file opens with “Install Certificate”',
    steps: [
      'Choose Install Certificate, for the local machine.',
      'Choose the store by hand: Trusted Root Certification Authorities.',
      'Close the browser and open it again.',
    ],
  },
  {
    of: 'A PC on which the file opens in a keychain',
    steps: ['Open the certificate there once more, and under Trust choose Always Trust.'],
  },
  {
    of: 'A browser that keeps certificates of its own',
    steps: [
      'In its settings search for “certificates”, open the authorities, and import the file: for websites.',
    ],
  },
]

/** The one page on plain http: how this tablet comes to trust the shop's own certificates. */
export function trustPage({ secure, here, fingerprint }: Trust): string {
  const qr = encodeQR(here, 'svg', { ecc: 'medium', border: 2 })
  const systems = STEPS.map(
    ({ of, steps }) =>
      `<details><summary>${escaped(of)}</summary><ol>${steps.map((step) => `<li>${escaped(step)}</li>`).join('')}</ol></details>`,
  ).join('\n')
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Dogleg: before this tablet opens it</title>
<link rel="stylesheet" href="/trust.css">
<link rel="icon" href="/icon.svg">
</head>
<body>
<main>
<h1>Before this tablet opens Dogleg</h1>
<p>What goes between this tablet and the server is kept from others by the shop’s own certificate. The tablet has to trust it once. It then counts for this shop’s names only, and for no other page.</p>
<ol class="steps">
<li><a class="key" href="${AUTHORITY_FILE}">Load the shop’s certificate</a></li>
<li>Let this tablet trust it:
${systems}
</li>
<li>Compare, where the system shows it (SHA-256), with what stands on the server’s screen:
<code>${escaped(fingerprint)}</code></li>
<li><a class="key" href="${escaped(secure)}">Open Dogleg</a> <span>at ${escaped(secure)}</span></li>
</ol>
<figure><div class="qr">${qr}</div><figcaption>This page, for the next tablet: ${escaped(here)}</figcaption></figure>
<p class="soft">On a tablet of the shop whoever looks after its devices may have to do it. Only certificates that you were told about by your own shop are to be trusted.</p>
</main>
</body>
</html>
`
}

/** How that page looks: the page's own paper and ink. */
export const TRUST_CSS = `
:root { color-scheme: light }
body { margin: 0; background: #f5edd9; color: #221c14; font: 18px/1.5 system-ui, sans-serif }
main { max-width: 46rem; margin: 0 auto; padding: 1.5rem }
h1 { font-size: 2rem; line-height: 1.2; margin: 0 0 .75rem }
.steps > li { margin: 1rem 0; padding-left: .25rem }
.steps > li::marker { font-weight: 700 }
.key { display: inline-block; background: #221c14; color: #f5edd9; font-weight: 700; font-size: 1.25rem; padding: .9rem 1.4rem; border-radius: 3px; text-decoration: none }
details { border-top: 1px solid #c9b994 }
summary { min-height: 44px; line-height: 44px; font-weight: 600; cursor: pointer }
code { display: block; font-size: 1rem; overflow-wrap: anywhere; background: #ebe0c5; padding: .5rem .75rem; border-radius: 3px }
figure { margin: 1.5rem 0; display: flex; flex-wrap: wrap; gap: 1rem; align-items: center }
.qr { width: 180px; height: 180px; background: #fff }
.qr svg { width: 100%; height: 100% }
figcaption { flex: 1; min-width: 12rem; overflow-wrap: anywhere }
.soft { color: #574d3d }
`
