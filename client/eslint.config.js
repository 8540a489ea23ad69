import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

const QUERIES = {
  name: "@tanstack/react-query",
  message: "What is asked of the server, and what it is kept under, stands in api/.",
};

export default tseslint.config(
  { ignores: ["src/api/schema.d.ts"] },
  ...tseslint.configs.strictTypeChecked,
  jsxA11y.flatConfigs.recommended,
  reactHooks.configs.flat.recommended,
  {
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector:
            "JSXText[value=/[A-Za-z]{2}/], JSXAttribute[name.name=/^(aria-label|label|title|placeholder|empty)$/] > Literal[value=/[a-z]{2}/]:not([value=/^Ctrl/])",
          message: "Every text of the interface stands in texts/texts.json.",
        },
      ],
      "@typescript-eslint/no-confusing-void-expression": ["error", { ignoreArrowShorthand: true }],
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      // paths of a drawing and what is read aloud are one string each
      "max-len": [
        "error",
        { code: 110, ignoreStrings: true, ignoreTemplateLiterals: true, ignorePattern: "eslint-disable" },
      ],
    },
  },
  {
    files: ["src/features/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          paths: [QUERIES],
          patterns: [
            {
              regex: "^\\.\\./[a-z]+/",
              message: "A feature knows no other: what two share lies in ui/, drawing/ or api/.",
            },
          ],
        },
      ],
    },
  },
  {
    files: ["src/queue/**", "src/drawing/**", "src/ui/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          paths: [QUERIES],
          patterns: [{ regex: "/features/", message: "What features share knows none of them." }],
        },
      ],
    },
  },
  {
    files: ["src/api/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ regex: "/(features|queue|ui|drawing)/", message: "What is asked knows no screen." }] },
      ],
    },
  },
);
