import type { MetadataRoute } from "next";

/** Web app manifest: all a device needs to keep the app beside its own. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: "Pelota",
    short_name: "Pelota",
    description: "Finds, sizes and proves leaks in the gas paths of a vehicle",
    start_url: "/",
    display: "standalone",
    background_color: "#0d1110",
    theme_color: "#0d1110",
    icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
  };
}
