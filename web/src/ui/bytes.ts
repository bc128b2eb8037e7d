/** A size as people say it: `243 kB`, `1.2 GB`. */
export function showBytes(bytes: number): string {
  const steps = ['bytes', 'kB', 'MB', 'GB', 'TB']
  let [value, step] = [bytes, 0]
  while (value >= 999.5 && step < steps.length - 1) [value, step] = [value / 1000, step + 1]
  const digits = step === 0 || value >= 99.5 ? 0 : 1
  return `${value.toFixed(digits)} ${steps[step]}`
}
