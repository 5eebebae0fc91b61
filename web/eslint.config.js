import js from "@eslint/js"
import hooks from "eslint-plugin-react-hooks"
import ts from "typescript-eslint"

export default ts.config(
  { ignores: ["dist", "src/api/generated/schema.ts"] },
  js.configs.recommended,
  ...ts.configs.strict,
  hooks.configs.flat.recommended,
  {
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/ban-ts-comment": "error",
      "@typescript-eslint/no-invalid-void-type": "off",
      "max-lines": ["error", { max: 400, skipBlankLines: true }],
    },
  },
  {
    files: ["src/features/**", "src/ui/**"],
    rules: {
      "no-restricted-syntax": [
        "error",
        { selector: "Literal[value=/^#[0-9a-fA-F]{3,8}$/]", message: "Colours live in app/theme.ts" },
      ],
    },
  },
)
