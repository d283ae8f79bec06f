import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3", "@react-pdf/renderer"],
  poweredByHeader: false,
  devIndicators: false,
};

export default config;
