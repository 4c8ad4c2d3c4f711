import type { NextConfig } from 'next'

const config: NextConfig = {
  serverExternalPackages: [
    ...['@napi-rs/canvas', 'postgres', '@tus/server', '@tus/file-store'],
    ...['@aws-sdk/client-s3', '@aws-sdk/lib-storage'],
  ],
  devIndicators: false,
  poweredByHeader: false,
  // On loopback nothing is won by it, and a download keeps its length.
  compress: false,
  // Types are checked by `npm test`; a start need not wait for them.
  typescript: { ignoreBuildErrors: true },
}

export default config
