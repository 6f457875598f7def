import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

/** Each room with those that stand above it. */
const ABOVE = ["workspace", "stages", "features"];
const ROOMS = {
  api: [...ABOVE, "desk", "jobs", "sounding", "ui", "units", "words"],
  words: [...ABOVE, "desk", "jobs", "sounding", "ui", "units"],
  units: [...ABOVE, "desk", "jobs", "sounding", "ui", "words"],
  ui: [...ABOVE, "desk", "jobs", "sounding", "units", "words"],
  sounding: [...ABOVE, "desk", "jobs", "ui", "words"],
  jobs: [...ABOVE, "desk", "sounding", "ui"],
  desk: [...ABOVE, "jobs"],
  stages: ["workspace"],
};

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  reactHooks.configs.flat.recommended,
  { languageOptions: { globals: globals.browser } },
  {
    files: ["src/**/*.{ts,tsx}"],
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "no-restricted-imports": "off",
    },
  },
  ...Object.entries(ROOMS).map(([room, above]) => ({
    files: [`src/${room}/**/*.{ts,tsx}`],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ group: above.flatMap((one) => [`**/${one}`, `**/${one}/**`]), message: "Imports go downward only: see docs/architecture.md." }] },
      ],
    },
  })),
  {
    // a feature imports no other feature: what two of them need lies on the desk, in sounding, ui, units or words
    files: ["src/features/**/*.{ts,tsx}"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ regex: "^\\.\\./(?!\\.\\./)", message: "A feature imports no feature." }, { group: ["**/stages/**", "**/workspace/**"], message: "Imports go downward only." }] },
      ],
    },
  },
);
