import type { NextConfig } from 'next'

const config: NextConfig = {
  serverExternalPackages: ['@napi-rs/canvas', 'postgres', 'pg-boss', '@tus/server', '@tus/file-store'],
  devIndicators: false,
  poweredByHeader: false,
  // Types are checked by `npm test`; a start need not wait for them.
  typescript: { ignoreBuildErrors: true },
}

export default config
