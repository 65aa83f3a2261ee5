import type { Belongings } from '../../core/formats/studio/belongings'
import { lacking } from '../../core/formats/studio/lacking'
import { MOST_PROFILES } from '../../core/formats/profiles/read-profiles'
import type { Store } from '../database/store'
import type { WholeSeat } from './backup-form'

/** Brings a seat in: what belongs to a seat of its name here stays as it is, and gets what it lacks. */
export function putSeat(store: Store, seat: WholeSeat): void {
  const id = placeFor(store, seat)
  const own = store.profiles.list(id)
  const known = new Set(own.map((p) => p.id))
  store.profiles.replace(id, [...own, ...seat.profiles.filter((p) => !known.has(p.id))].slice(0, MOST_PROFILES))
  store.belongings.change(id, lacking(store.belongings.read(id), seat.belongings))
}

/** The seat of that name; the only one here where nobody has used it yet, which takes the name; or a new one. */
function placeFor({ seats, belongings, profiles }: Store, { name, colour }: WholeSeat): string {
  const all = seats.list()
  if (!name) return seats.first()
  const here = all.find((s) => s.name.toLowerCase() === name.toLowerCase())
  if (here) return here.id
  const [only] = all
  if (all.length > 1 || only!.drawings || profiles.list(only!.id).length || !isBlank(belongings.read(only!.id)))
    return seats.add(name, colour).id
  seats.change(only!.id, { name, colour })
  return only!.id
}

const isBlank = ({ choices, own }: Belongings): boolean => !Object.keys(choices).length && !own.length
