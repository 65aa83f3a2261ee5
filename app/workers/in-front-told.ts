import type { Path } from '#core/geometry/path'
import type { InFrontOf } from '#core/ink/front/as-seen'
import type { Encoded } from './dictionary'
import { DictionaryDecoder, DictionaryEncoder } from './dictionary'

/** What lies in front of lines, as it is told to another thread: by line, the places of paths in a list. */
export interface InFrontTold {
  paths: Encoded<Path>
  lines: [line: string, places: number[]][]
}

/** Tells what lies in front of lines; a path is sent only once for as long as it hides anything. */
export class InFrontEncoder {
  private readonly sent = new DictionaryEncoder<Path>()

  tell(inFront: InFrontOf): InFrontTold {
    const paths = [...new Set([...inFront.values()].flat())]
    const places = new Map(paths.map((p, i) => [p, i]))
    return {
      paths: this.sent.tell(paths),
      lines: [...inFront].map(([line, all]) => [line, all.map((p) => places.get(p)!)]),
    }
  }
}

/** The other side. */
export class InFrontDecoder {
  private readonly held = new DictionaryDecoder<Path>()

  take({ paths, lines }: InFrontTold): InFrontOf {
    const all = this.held.take(paths)
    return new Map(lines.map(([line, places]) => [line, places.map((i) => all[i]!)]))
  }
}
