import { type Collet, colletSketch, SAMPLE_BARS } from '@dogleg/core/hold'
import { useState } from 'react'
import { ColletDrawing } from './collet-drawing.tsx'
import { RatioPair } from './ratio-pair.tsx'
import { ShareSlider } from './share-slider.tsx'

/** What a collet comes to: its ratio, and how it moves from a small bar to a large one. */
export function ColletPreview({ collet }: { collet: Collet }) {
  const [share, setShare] = useState(1)
  return (
    <section aria-label="Preview" className="space-y-2">
      <h2 className="text-lg font-semibold">What it comes to</h2>
      <RatioPair collet={collet} />
      <ColletDrawing sketch={colletSketch(collet, 'collet', SAMPLE_BARS, share)} unit="inch" />
      <ShareSlider label="Bar, from 0.998 to 1.002 in" value={share} onChange={setShare} />
    </section>
  )
}
