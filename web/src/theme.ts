import { createSystem, defaultBaseConfig, defineConfig } from "@chakra-ui/react";
import {
  animationStyles,
  breakpoints,
  buttonRecipe,
  globalCss,
  headingRecipe,
  inputRecipe,
  keyframes,
  layerStyles,
  nativeSelectSlotRecipe,
  progressSlotRecipe,
  semanticTokens,
  spinnerRecipe,
  textStyles,
  tokens,
} from "@chakra-ui/react/theme";

/** The inks of the sheet; their values, by day and by night, are in styles.css. */
const inks = ["paper", "plot", "ink", "soft", "hair", "depth", "caution", "watch", "bed", "set", "wash"] as const;

/** What of the library's theme the pages use: all of it would be half of the first page's script. */
const used = defineConfig({
  preflight: true,
  cssVarsPrefix: "chakra",
  cssVarsRoot: ":where(html, .chakra-theme)",
  globalCss,
  theme: {
    breakpoints,
    animationStyles,
    keyframes,
    layerStyles,
    textStyles,
    tokens,
    semanticTokens,
    recipes: { button: buttonRecipe, heading: headingRecipe, input: inputRecipe, spinner: spinnerRecipe },
    slotRecipes: { nativeSelect: nativeSelectSlotRecipe, progress: progressSlotRecipe },
  },
});

export const system = createSystem(
  defaultBaseConfig,
  used,
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
