import { defineNitroPlugin } from 'nitropack/runtime'
import { randomBytes } from 'node:crypto'

/** Every page gets a policy that runs only the scripts that the server put there. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response) => {
    if (typeof response.body !== 'string') return
    const nonce = randomBytes(16).toString('base64')
    response.body = response.body.replaceAll('<script', `<script nonce="${nonce}"`)
    response.headers = {
      ...response.headers,
      'content-security-policy': [
        "default-src 'self'",
        `script-src 'self' 'nonce-${nonce}'`,
        "style-src 'self'",
        "img-src 'self' blob: data:",
        "font-src 'self'",
        "worker-src 'self'",
        "connect-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
      ].join('; '),
    }
  })
})
