import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3", "@react-pdf/renderer"],
  poweredByHeader: false,
  devIndicators: false,
  // Types are checked by `npm run types`, once for code and tests together.
  typescript: { ignoreBuildErrors: true },
};

export default config;
