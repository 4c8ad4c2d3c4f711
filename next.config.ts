import type { NextConfig } from 'next'

const config: NextConfig = {
  serverExternalPackages: ['@napi-rs/canvas', 'postgres', 'pg-boss', '@tus/server', '@tus/file-store'],
  devIndicators: false,
  poweredByHeader: false,
}

export default config
