import { chosen } from './choices.ts'

/** Tones in Hz and how long each lasts in ms: up for taken, down for refused, so that neither needs to be known by heart. */
const TONES = { taken: [880, 1320], refused: [440, 220] } as const
const TONE_MS = 90
const BUZZES = { taken: [40], refused: [120, 60, 120] } as const

let audio: AudioContext | undefined

function sound(what: keyof typeof TONES) {
  audio ??= new AudioContext()
  let at = audio.currentTime
  for (const pitch of TONES[what]) {
    const [tone, volume] = [audio.createOscillator(), audio.createGain()]
    tone.frequency.value = pitch
    volume.gain.value = 0.2
    tone.connect(volume).connect(audio.destination)
    tone.start(at)
    at += TONE_MS / 1000
    tone.stop(at)
  }
}

/** Says by a tone and a buzz, where they are wanted, that something was taken or refused: the eyes are at the machine. */
export function tell(what: keyof typeof TONES) {
  try {
    if (chosen('sound') === 'on') sound(what)
    if (chosen('buzz') === 'on') navigator.vibrate?.([...BUZZES[what]])
  } catch {
    // A tablet that cannot is silent.
  }
}
