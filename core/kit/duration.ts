/** "35 min", "3 h 20 min", "2 d 4 h": minutes as people say them. */
export function spell(minutes: number): string {
  const whole = Math.abs(Math.round(minutes))
  if (whole < 60) return `${whole} min`
  if (whole < 1440) return whole % 60 ? `${Math.floor(whole / 60)} h ${whole % 60} min` : `${whole / 60} h`
  const hours = Math.floor((whole % 1440) / 60)
  return hours ? `${Math.floor(whole / 1440)} d ${hours} h` : `${Math.floor(whole / 1440)} d`
}
