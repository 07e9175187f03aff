/** A number of bytes in words, in binary units. */
export function sizeWords(bytes: number): string {
  if (bytes < 1024) return `${bytes} bytes`
  const units = ['KiB', 'MiB', 'GiB', 'TiB']
  let value = bytes
  let unit = -1
  do {
    value /= 1024
    unit++
  } while (value >= 1024 && unit < units.length - 1)
  return `${value >= 100 ? Math.round(value) : value.toFixed(1).replace(/\.0$/, '')} ${units[unit]}`
}
