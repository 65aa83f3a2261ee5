/** A table of a report: its header's cells, and its rows by their first cells. */
export interface Table {
  header: string[]
  rows: string[][]
  /** The line of the text at which its first row stands. */
  line: number
}

const cellsOf = (line: string): string[] =>
  line
    .split('|')
    .slice(1, -1)
    .map((c) => c.trim())

/** The tables of a text in Markdown. */
export function tablesIn(text: string): Table[] {
  const lines = text.split('\n')
  return lines.flatMap((line, i): Table[] => {
    if (!line.startsWith('| ') || !/^\|[ :|-]+\|$/.test(lines[i + 1] ?? '')) return []
    const rows: string[][] = []
    for (let k = i + 2; lines[k]?.startsWith('|'); k++) rows.push(cellsOf(lines[k]!))
    return [{ header: cellsOf(line), rows, line: i + 2 }]
  })
}

const numberIn = (cell: string | undefined): number =>
  /^-?[\d,]+(\.\d+)?( %| ms| px)?$/.test(cell ?? '') ? Number.parseFloat(cell!.replaceAll(',', '')) : Number.NaN

/** Columns of which more is better, and those that are no measure of ours. */
const MORE = /times as fast|fewer/
const NO_MEASURE = /theirs|deviation|samples|events|contours|lines|regions|fills|megapixels|exponent|with$/

/** So much worse is told. */
const WORSE = 1.25

/** What of a new report is worse than in the one before by over a quarter, a sentence each. */
export function whatGotWorse(before: string, now: string): string[] {
  const old = tablesIn(before)
  return tablesIn(now).flatMap(({ header, rows }) => {
    const same = old.find((t) => t.header.join() === header.join())
    return rows.flatMap((row) => {
      const was = same?.rows.find((r) => keyOf(r, header) === keyOf(row, header))
      return header.flatMap((name, i) => {
        const [a, b] = [numberIn(was?.[i]), numberIn(row[i])]
        if (i === 0 || NO_MEASURE.test(name) || !(a > 0) || !(b > 0)) return []
        return (MORE.test(name) ? a / b : b / a) > WORSE ? [`${row[0]}: ${name} ${row[i]}, was ${was![i]}`] : []
      })
    })
  })
}

/** Rows are known again by their words: by their first cell where that is one, and by the rival where there is one. */
const keyOf = (row: readonly string[], header: readonly string[]): string =>
  [row[0], header[1] === 'against' ? row[1] : ''].join(' ')

/** A report with those tables in it that another, of some parts alone, has rows for. */
export function withTables(report: string, parts: string): string {
  const lines = report.split('\n')
  for (const { header, rows } of tablesIn(parts)) {
    const at = tablesIn(lines.join('\n')).find((t) => t.header.join() === header.join())
    if (at && rows.length) lines.splice(at.line, at.rows.length, ...rows.map((r) => `| ${r.join(' | ')} |`))
  }
  return lines.join('\n')
}
