import type { Vec } from '#core/geometry/point'

const DOUBLE_TIME = 450
const DOUBLE_REACH = 5

/** Tells a press that follows another soon and near, the second of a double-click (2), from one that does not (1). */
export function clickCounter(): (at: { time: number; screen: Vec }) => number {
  let last = { time: -Infinity, screen: { x: 0, y: 0 }, clicks: 0 }
  return ({ time, screen }) => {
    const near = Math.hypot(screen.x - last.screen.x, screen.y - last.screen.y) < DOUBLE_REACH
    const clicks = near && time - last.time < DOUBLE_TIME && last.clicks === 1 ? 2 : 1
    last = { time, screen, clicks }
    return clicks
  }
}
