/** `wanted`, or with the first number behind it that makes it a name of its own; cut to `longest` letters. */
export function freeName(taken: ReadonlySet<string>, wanted: string, longest = 120): string {
  const name = wanted.trim().slice(0, longest)
  if (!taken.has(name)) return name
  for (let i = 2; ; i++) {
    const next = `${name.slice(0, longest - 5)} ${i}`
    if (!taken.has(next)) return next
  }
}
