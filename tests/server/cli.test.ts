import { spawnSync } from 'node:child_process'
import {
  existsSync,
  linkSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import Database from 'better-sqlite3'
import { build } from 'esbuild'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { unzipped } from '../../core/formats/archive/zip'
import { Taken } from '../../cli/outputs'
import { parseSvg } from '../../core/formats/svg/parse-svg'
import { readMigrations } from '../../server/database/migration-files'
import { openStore } from '../../server/database/store'

const root = fileURLToPath(new URL('../..', import.meta.url))
const stroke = (d: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 50 50"><path d="${d}" stroke="black" fill="none" stroke-width="4"/><rect x="30" y="30" width="10" height="10" fill="#ff0000"/></svg>`

let folder: string
/** The command line in one file, which starts at once: it lies as deep in the project as its source. */
const bundled = join(root, 'data', `cli-${process.pid}.mjs`)
const cli = (...args: string[]) => spawnSync(process.execPath, [bundled, ...args], { cwd: root, encoding: 'utf8' })

beforeAll(async () => {
  await build({
    entryPoints: [join(root, 'cli/bellatrait.ts')],
    outfile: bundled,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'warning',
  })
  folder = mkdtempSync(join(tmpdir(), 'bellatrait-'))
  mkdirSync(join(folder, 'in'))
  writeFileSync(join(folder, 'in', 'a.svg'), stroke('M5 5L45 5'))
  writeFileSync(join(folder, 'in', 'b.svg'), stroke('M5 5L45 45M5 45L45 5'))
})
afterAll(() => {
  rmSync(folder, { recursive: true, force: true })
  rmSync(bundled, { force: true })
})

describe('the command line', () => {
  it('turns strokes into fills and leaves fills alone', () => {
    const out = join(folder, 'one.svg')
    const { status, stderr } = cli('expand', join(folder, 'in', 'a.svg'), '--out', out)
    expect([status, stderr]).toEqual([0, ''])
    const svg = readFileSync(out, 'utf8')
    expect(svg).not.toContain('stroke')
    expect(svg).toContain('fill="#ff0000"')
    expect(svg.match(/<path/g)).toHaveLength(2)
  })

  it('takes a folder, unites, simplifies and reports', () => {
    const report = join(folder, 'report.json')
    expect(
      cli(
        'expand',
        join(folder, 'in'),
        '--out-dir',
        join(folder, 'out'),
        '--union',
        '--simplify',
        '0.1',
        '--report',
        report,
      ).status,
    ).toBe(0)
    const rows = JSON.parse(readFileSync(report, 'utf8')) as {
      file: string
      strokes: number
      contours: number
      nodes: number
    }[]
    expect(rows.map((r) => r.strokes)).toEqual([1, 2])
    // Two crossed strokes are one contour of twelve corners; the square is another.
    expect(rows[1]).toMatchObject({ contours: 2, nodes: 16, findings: { blunt: 4 } })
    expect(existsSync(join(folder, 'out', 'b.svg'))).toBe(true)
  })

  it('tucks ends and cuts shapes out of each other where it is told to', () => {
    // A stroke that ends on another of a second colour, with a cap that shows beyond it.
    writeFileSync(
      join(folder, 't.svg'),
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 50 50"><path d="M5 25L30 25" stroke="#ff0000" stroke-width="8" stroke-linecap="round" fill="none"/><path d="M30 5L30 45" stroke="#000000" stroke-width="3" fill="none"/></svg>`,
    )
    const run = (...args: string[]) => {
      const [out, report] = [join(folder, 't.out.svg'), join(folder, 't.json')]
      expect(cli('expand', join(folder, 't.svg'), '--out', out, '--report', report, ...args).status).toBe(0)
      return {
        contours: (JSON.parse(readFileSync(report, 'utf8')) as { contours: number }[])[0]!.contours,
        red: readFileSync(out, 'utf8').match(/<path[^>]*#ff0000[^>]*>/)![0],
      }
    }
    const [plain, tucked, cut] = [run(), run('--tuck'), run('--tuck', '--unite', 'cut-out')]
    const farthest = (path: string): number =>
      Math.max(...[...path.matchAll(/(?<=[MLC ])(-?[\d.]+)[ ,](-?[\d.]+)/g)].map((m) => Number(m[1])))
    expect([plain, tucked, cut].map((p) => p.contours)).toEqual([2, 2, 2])
    expect(farthest(plain.red)).toBeCloseTo(34, 1)
    expect(farthest(tucked.red)).toBeCloseTo(31.5, 1)
    expect(farthest(cut.red)).toBeCloseTo(28.5, 1)
    expect(cli('expand', join(folder, 't.svg'), '--out', join(folder, 'x.svg'), '--unite', 'apart')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('stacked, cut-out or one') as string,
    })
  })

  it('drops specks and slivers of ink and says which, but no fills', () => {
    const file = join(folder, 'specks.svg')
    const out = join(folder, 'clean.svg')
    const report = join(folder, 'specks.json')
    writeFileSync(
      file,
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 50 50"><g stroke="black" fill="none"><path d="M5 5L45 5" stroke-width="4"/><path d="M5 15L45 15" stroke-width="0.2"/><path d="M5 25L6 25" stroke-width="1"/></g><rect x="30" y="30" width="1" height="1" fill="#ff0000"/></svg>`,
    )
    expect(cli('expand', file, '--out', out, '--specks', '2', '--slivers', '0.5', '--report', report).status).toBe(0)
    const [row] = JSON.parse(readFileSync(report, 'utf8')) as {
      dropped: { area: number; width: number }[]
      contours: number
    }[]
    expect(row!.dropped.map((d) => d.area)).toEqual([expect.closeTo(8, 6), expect.closeTo(1, 6)])
    expect(row!.contours).toBe(2)
    expect(readFileSync(out, 'utf8').match(/<path/g)).toHaveLength(2)
    expect(readFileSync(out, 'utf8')).toContain('#ff0000')
  })

  it('names what failed, does the others, and answers 1', () => {
    writeFileSync(join(folder, 'in', 'c.svg'), 'no svg at all')
    const { status, stderr } = cli(
      'expand',
      join(folder, 'in'),
      join(folder, 'missing.svg'),
      '--out-dir',
      join(folder, 'out2'),
    )
    expect(status).toBe(1)
    expect(stderr).toMatch(/c\.svg: .*not well-formed/)
    expect(stderr).toMatch(/missing\.svg/)
    expect(existsSync(join(folder, 'out2', 'a.svg'))).toBe(true)
  })

  it('never writes over what it reads, however it is spelled or linked', () => {
    const live = join(folder, 'live.svg')
    const text = stroke('M7 9L41 30')
    writeFileSync(live, text)
    symlinkSync(live, join(folder, 'link.svg'))
    linkSync(live, join(folder, 'hard.svg'))
    symlinkSync(folder, join(folder, 'again'))
    const taken = new Taken([live])
    for (const out of [
      live,
      join(folder, 'in', '..', 'live.svg'),
      join(folder, 'link.svg'),
      join(folder, 'hard.svg'),
      join(folder, 'again', 'live.svg'),
      relative(process.cwd(), live),
    ])
      expect([out, taken.rivalOf(out)]).toEqual([out, `the input ${live}`])
    expect(
      [join(folder, 'other.svg'), join(folder, 'live.svg', 'in-a-file.svg')].map((out) => taken.rivalOf(out)),
    ).toEqual([null, null])
    expect(cli('expand', live, '--out', join(folder, 'x.svg'), '--report', live)).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('--report would overwrite') as string,
    })
    // Another input than its own is one all the same, and a folder of inputs is not written into.
    mkdirSync(join(folder, 'upper'))
    writeFileSync(join(folder, 'upper', 'UP.SVG'), text)
    writeFileSync(join(folder, 'UP.SVG'), text)
    const { status, stderr } = cli(
      'expand',
      join(folder, 'upper'),
      join(folder, 'UP.SVG'),
      live,
      '--out-dir',
      join(folder, 'again'),
    )
    expect([status, stderr.match(/would overwrite the input/g)?.length]).toEqual([1, 3])
    expect([live, join(folder, 'UP.SVG')].map((f) => readFileSync(f, 'utf8'))).toEqual([text, text])
    for (const args of [
      ['--out', live],
      ['--out-dir', folder],
    ]) {
      const { status, stderr } = cli('deliver', live, ...args)
      expect([status, stderr]).toEqual([
        args[0] === '--out' ? 2 : 1,
        expect.stringContaining(`would overwrite the input ${live}`),
      ])
      expect(readFileSync(live, 'utf8')).toBe(text)
    }
  })

  it('says in a sentence where nothing is there to do, or nothing can be written', () => {
    mkdirSync(join(folder, 'empty'))
    const zip = join(folder, 'empty.zip')
    for (const args of [
      ['deliver', '--out', zip],
      ['expand', '--out-dir', join(folder, 'none')],
    ]) {
      const { status, stderr } = cli(...args, join(folder, 'empty'), join(folder, 'gone.svg'))
      expect([status, /holds no SVG files/.test(stderr), /no such file or folder/.test(stderr)]).toEqual([
        1,
        true,
        true,
      ])
    }
    expect(existsSync(zip)).toBe(false)
    const under = join(folder, 'in', 'a.svg', 'b.svg')
    for (const args of [
      ['expand', join(folder, 'in', 'b.svg'), '--out', join(folder, 'b.svg'), '--report', under],
      ['deliver', join(folder, 'in', 'b.svg'), '--out', under],
    ]) {
      const { status, stderr } = cli(...args)
      expect([status, stderr]).toEqual([
        1,
        expect.stringMatching(/could not be written: a file stands where a folder should be\.\n$/),
      ])
    }
  })

  it.each([
    [[]],
    [['expand']],
    [['expand', 'a.svg']],
    [['expand', 'a.svg', '--out', 'b.svg', '--tolerance', '-1']],
    [['expand', 'a.svg', '--what']],
    [['expand', 'a.svg', '--out', 'b.svg', '--slivers', 'thin']],
    [['expand', 'a.svg', 'b.svg', '--out', 'c.svg']],
  ])('wrong usage %j answers 2 and says how', (args) => {
    const { status, stderr } = cli(...args)
    expect(status).toBe(2)
    expect(stderr).toContain('Usage: expand')
  })
})

describe('the command line delivers', () => {
  beforeAll(() => {
    mkdirSync(join(folder, 'two'))
    for (const name of ['a', 'b']) writeFileSync(join(folder, 'two', `${name}.svg`), stroke('M5 5L45 5'))
  })

  it(
    'a folder as one archive of pictures, and a database file as files, with one set of settings',
    { timeout: 90_000 },
    async () => {
      const zip = join(folder, 'many.zip')
      writeFileSync(join(folder, 'own.json'), JSON.stringify({ kind: 'picture', picture: { by: 'px', side: 64 } }))
      expect(cli('deliver', join(folder, 'two'), '--out', zip, '--settings', join(folder, 'own.json'))).toMatchObject({
        status: 0,
        stderr: '',
      })
      const files = unzipped(readFileSync(zip), { files: 9, bytes: 1e7 })
      expect([...files.keys()]).toEqual(['a.png', 'b.png'])
      expect((await sharp(files.get('b.png')).metadata()).width).toBe(64)
      const db = join(folder, 'desk.db')
      const store = openStore(db, readMigrations(join(root, 'server/database/migrations')))
      for (const [name, shelf] of [
        ['Bee', 'Class 4b'],
        ['bee', 'Class 4b'],
        ['Snail', 'Other'],
      ] as const) {
        const { drawing } = parseSvg(stroke('M5 5L45 5'))
        store.journal.create({ ...drawing, id: name, name })
        store.journal.drawings.shelve(name, store.shelves.of(shelf).id)
      }
      store.connection.close()
      expect(
        cli('deliver', db, '--out-dir', join(folder, 'desk'), '--settings', 'cutter', '--shelf', 'Class 4b'),
      ).toMatchObject({ status: 0, stderr: '' })
      expect(readdirSync(join(folder, 'desk')).sort()).toEqual(['bee-2.svg', 'bee.svg'])
      expect(readFileSync(join(folder, 'desk', 'bee.svg'), 'utf8')).toMatch(/width="[\d.]+(mm)?"/)
      expect(cli('deliver', db, '--out', join(folder, 'no.zip'), '--shelf', 'Class 5')).toMatchObject({
        status: 1,
        stderr: expect.stringContaining('there is no shelf "Class 5". There are: Class 4b, Other.') as string,
      })
      expect(existsSync(join(folder, 'no.zip'))).toBe(false)
      // A Desk that an older version left, or a newer one.
      const meddle = (sql: string): void => {
        const meddled = new Database(db)
        meddled.exec(sql)
        meddled.close()
      }
      meddle("INSERT INTO migrations VALUES ('9999-later.sql', '2030-01-01')")
      expect(cli('deliver', db, '--out', join(folder, 'no.zip')).stderr).toContain('the Desk of a newer Bellatrait')
      meddle("DELETE FROM migrations WHERE name > '0005'")
      expect(cli('deliver', db, '--out', join(folder, 'no.zip')).stderr).toContain('the Desk of an older Bellatrait')
    },
  )

  it('says what is wrong, and does the rest', () => {
    expect(cli('deliver', join(folder, 'two'))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('Name either --out or --out-dir') as string,
    })
    expect(cli('deliver', join(folder, 'two'), '--out', 'x.zip', '--settings', 'poster')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('no settings "poster"') as string,
    })
    for (const [text, why] of [
      ['{"kind":"film"}', 'cannot be used'],
      ['null', 'no record of settings'],
      ['{"pdf":{"bleeds":3}}', 'there is no setting "pdf.bleeds"'],
    ] as const) {
      writeFileSync(join(folder, 'bad.json'), text)
      expect(
        cli('deliver', join(folder, 'two'), '--out', 'x.zip', '--settings', join(folder, 'bad.json')),
      ).toMatchObject({ status: 2, stderr: expect.stringContaining(why) as string })
    }
    writeFileSync(join(folder, 'broken.svg'), '<svg')
    const { status, stderr } = cli(
      'deliver',
      join(folder, 'broken.svg'),
      join(folder, 'none.db'),
      join(folder, 'two', 'a.svg'),
      '--out-dir',
      join(folder, 'rest'),
    )
    expect(status).toBe(1)
    expect(stderr).toContain('broken.svg')
    expect(stderr).toContain('none.db')
    expect(readdirSync(join(folder, 'rest'))).toEqual(['a.svg'])
  })
})
