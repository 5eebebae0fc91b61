import js from "@eslint/js"
import boundaries from "eslint-plugin-boundaries"
import a11y from "eslint-plugin-jsx-a11y"
import hooks from "eslint-plugin-react-hooks"
import ts from "typescript-eslint"

// what each part of the interface may know: a station never reaches into the app above it,
// and shared parts know no station
const from = (type, ...allow) => ({
  from: { element: { type } },
  allow: allow.map((to) => ({ to: { element: { type: to } } })),
})

export default ts.config(
  { ignores: ["dist", "src/api/generated/schema.ts"] },
  js.configs.recommended,
  ...ts.configs.strict,
  hooks.configs.flat.recommended,
  a11y.flatConfigs.recommended,
  {
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/ban-ts-comment": "error",
      "@typescript-eslint/no-invalid-void-type": "off",
      "max-lines": ["error", { max: 400, skipBlankLines: true }],
    },
  },
  {
    plugins: { boundaries },
    settings: {
      "import/resolver": { node: { extensions: [".ts", ".tsx"] } },
      "boundaries/ignore": ["src/**/*.test.*", "src/testing/**"],
      "boundaries/elements": [
        { type: "api", pattern: "src/api" },
        { type: "app", pattern: "src/app" },
        { type: "ui", pattern: "src/ui" },
        { type: "station", pattern: "src/features/*" },
      ],
    },
    rules: {
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          policies: [
            from("api", "api"),
            from("ui", "ui", "api", "app"),
            from("station", "station", "ui", "api", "app"),
            from("app", "app", "ui", "api", "station"),
          ],
        },
      ],
    },
  },
  {
    files: ["src/features/**", "src/ui/**"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "Literal[value=/^#[0-9a-fA-F]{3,8}$/]",
          message: "Colours live in app/theme.ts",
        },
      ],
    },
  },
)
