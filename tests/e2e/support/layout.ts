import type { Page } from '@playwright/test'

/** What of the bar and the dock lies outside of the window, other than where it can be scrolled to. */
export const cutOff = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [
      ...document.querySelectorAll(
        'header button, header a, footer button, footer input, footer select, footer svg[role="group"], main > button, aside h2',
      ),
    ]
      .filter((e) => e.getClientRects().length)
      .filter((e) => {
        const b = e.getBoundingClientRect()
        const rolls = (way: 'overflowX' | 'overflowY', r: Element): boolean =>
          /auto|scroll/.test(getComputedStyle(r)[way])
        const about = [...document.querySelectorAll('*')].filter((r) => r.contains(e))
        const wide = about.some((r) => rolls('overflowX', r) && r.scrollWidth > r.clientWidth)
        const high = about.some((r) => rolls('overflowY', r) && r.scrollHeight > r.clientHeight)
        return (
          (!wide && (b.right > window.innerWidth + 1 || b.left < -1)) || (!high && b.bottom > window.innerHeight + 1)
        )
      })
      .map((e) => e.getAttribute('aria-label') ?? e.textContent ?? e.tagName),
  )

/** What is pressed and is smaller than `least` px either way, or words that are cut without a way to read them. */
export const crowded = (page: Page, least: number): Promise<string[]> =>
  page.evaluate((least) => {
    const isSeen = (e: Element): boolean =>
      e.getClientRects().length > 0 && e.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true })
    const called = (e: Element): string => (e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40)
    const small = [
      ...document.querySelectorAll(
        'button, a[href], select, input, summary, [role="menuitem"], [role="option"], [role="slider"], [role="button"]',
      ),
    ].flatMap((e) => {
      // Words within a sentence are as high as it; what only helps a screen reader has no size.
      if (!isSeen(e) || e.closest('[aria-hidden="true"]') || e.parentElement?.tagName === 'P') return []
      const target = e.matches('[type="checkbox"], [type="radio"]') ? (e.closest('label') ?? e) : e
      const { width, height } = target.getBoundingClientRect()
      return Math.min(width, height) < least - 0.5 ? [`${called(e)}: ${Math.round(width)} x ${Math.round(height)}`] : []
    })
    const cut: string[] = []
    const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    while (words.nextNode()) {
      const of = words.currentNode.parentElement
      if (!of || !words.currentNode.textContent!.trim() || !isSeen(of) || of.closest('option, svg, .sr-only')) continue
      const range = document.createRange()
      range.selectNodeContents(words.currentNode)
      const box = range.getBoundingClientRect()
      for (let about: Element | null = of; box.width && about && about !== document.body; about = about.parentElement) {
        const { overflowX, overflowY, textOverflow, webkitLineClamp } = getComputedStyle(about)
        // What rolls can be read; what ends in dots has its title.
        if (/auto|scroll/.test(overflowX + overflowY) || webkitLineClamp !== 'none') break
        const frame = about.getBoundingClientRect()
        const isPast = box.left < frame.left - 1 || box.right > frame.right + 1
        if (textOverflow === 'ellipsis' && isPast && about.closest('[title], [aria-label]')) break
        if ((overflowX === 'hidden' && isPast) || (overflowY === 'hidden' && box.bottom > frame.bottom + 2)) {
          cut.push(`cut: ${words.currentNode.textContent!.trim().slice(0, 40)}`)
          break
        }
      }
    }
    return [...new Set([...small, ...cut])]
  }, least)
