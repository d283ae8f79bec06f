/** Carries the nonce of a page's own scripts from the gate to the page. */
export const NONCE_HEADER = "x-pelota-nonce";

/**
 * Content security policy of a page: run our own scripts and those that carry this answer's nonce, show our own pictures and those made
 * on the page, talk to this server, stand in no other page. Charts and maps place things by style attributes; style elements are our own or
 * carry the nonce.
 */
export const policyOf = (nonce: string) =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
