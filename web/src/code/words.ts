/** '1:05', '12.4 s'. */
export function clockTime(seconds: number): string {
  if (seconds < 60) return `${seconds.toFixed(seconds < 10 ? 2 : 1)} s`
  if (seconds < 3600)
    return `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`
  return `${(seconds / 3600).toFixed(1)} h`
}
