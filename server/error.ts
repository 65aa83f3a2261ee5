import type { H3Event } from 'h3'
import { getRequestHeader, send, setResponseHeaders, setResponseStatus } from 'h3'
import { defineNitroErrorHandler } from 'nitropack/runtime'

/** What is said of an error that nobody foresaw. */
const UNFORESEEN =
  'Something went wrong in the server; its log says what. What you drew is kept in this browser. Load the page again.'

/** The other side went away in the middle of what it asked: nobody hears an answer, and nothing is wrong here. */
function isGone(error: { code?: string; message?: string; cause?: unknown }): boolean {
  const cause = error.cause as { code?: string; message?: string } | undefined
  return [error, cause].some(
    (e) => e?.code === 'ECONNRESET' || e?.code === 'ERR_STREAM_PREMATURE_CLOSE' || e?.message === 'aborted',
  )
}

/** Answers an error: a sentence as JSON to the application, as a page to a person. */
export default defineNitroErrorHandler((error, event) => {
  const { res } = event.node
  if (isGone(error) || res.destroyed) return void res.destroy()
  const foreseen = !error.unhandled && !error.fatal
  if (!foreseen) console.error(`[${event.method}] ${event.path}\n`, error)
  if (res.headersSent) return void res.destroy()
  const status = error.statusCode || 500
  const message = foreseen && error.message ? error.message : UNFORESEEN
  setResponseStatus(event, status, foreseen ? error.statusMessage : 'Error')
  if (isPage(event)) {
    setResponseHeaders(event, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-cache',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'",
    })
    return send(event, page(status, message))
  }
  setResponseHeaders(event, {
    'content-type': 'application/json',
    'cache-control': 'no-cache',
    'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
  })
  return send(
    event,
    JSON.stringify({
      error: true,
      statusCode: status,
      message,
      data: { message, ...(foreseen ? (error.data as object) : null) },
    }),
  )
})

const isPage = (event: H3Event): boolean =>
  event.method === 'GET' &&
  !event.path.startsWith('/api/') &&
  !!getRequestHeader(event, 'accept')?.includes('text/html')

const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)

/** A page with a sentence and the way back to the Desk. */
const page = (status: number, message: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${status === 404 ? 'Nothing here' : 'Bellatrait'}</title>
<style>body{margin:0;min-height:100vh;display:grid;place-content:center;justify-items:start;gap:14px;padding:24px;background:#e7e2d8;color:#211c1a;font:16px/1.5 sans-serif}p{margin:0;max-width:44ch}a{color:#7a2b58;font-weight:600}</style>
</head>
<body><p>${escaped(message)}</p><p><a href="/">Go to the Desk</a></p></body>
</html>`
