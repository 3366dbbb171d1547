import { chosen, whenChosen } from './choices.ts'

/**
 * Keeps the ground of the page as it was chosen, paper for the day, dark for the night shift, or as the tablet has it, and how large words
 * and keys are.
 */
export function keepGround() {
  const dark = window.matchMedia('(prefers-color-scheme: dark)')
  const set = () => {
    const ground = chosen('ground')
    const night = ground === 'night' || (ground === 'system' && dark.matches)
    const { classList } = document.documentElement
    classList.toggle('night', night)
    classList.toggle('large', chosen('size') === 'large')
  }
  set()
  dark.addEventListener('change', set)
  whenChosen(set)
}
