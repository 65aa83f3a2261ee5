import type { Vec } from '#core/geometry/point'

const DOUBLE_TIME = 450
const DOUBLE_REACH = 5

/** Tells presses that follow each other soon and near, with no drag between them, from those that do not. */
export class ClickCounter {
  private last = { time: -Infinity, screen: { x: 0, y: 0 }, clicks: 0 }

  /** 2 for the second press of a double-click, else 1. */
  press(time: number, screen: Vec): number {
    const clicks = this.isNear(screen) && time - this.last.time < DOUBLE_TIME && this.last.clicks === 1 ? 2 : 1
    this.last = { time, screen, clicks }
    return clicks
  }

  /** What was pressed is let go: after a drag the next press is the first of its kind. */
  release(screen: Vec): void {
    if (!this.isNear(screen)) this.last.clicks = 0
  }

  private isNear = (screen: Vec): boolean =>
    Math.hypot(screen.x - this.last.screen.x, screen.y - this.last.screen.y) < DOUBLE_REACH
}
