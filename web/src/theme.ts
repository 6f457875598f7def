import { createSystem, defaultConfig, defineConfig } from "@chakra-ui/react";

/** The inks of the sheet; their values, by day and by night, are in styles.css. */
const inks = ["paper", "plot", "ink", "soft", "hair", "depth", "caution", "watch", "bed", "set", "wash"] as const;

export const system = createSystem(
  defaultConfig,
  defineConfig({
    globalCss: {
      "html, body": { bg: "paper", color: "ink", fontFamily: "body" },
    },
    theme: {
      tokens: {
        colors: Object.fromEntries(inks.map((ink) => [ink, { value: `var(--${ink})` }])),
        fonts: {
          body: { value: "'Alegreya Sans', sans-serif" },
          heading: { value: "'Alegreya Sans', sans-serif" },
        },
      },
      recipes: {
        button: {
          base: { fontWeight: 500, borderRadius: "full" },
        },
      },
    },
  }),
);
