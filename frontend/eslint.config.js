import js from "@eslint/js";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

export default ts.config(
  { ignores: ["src/api/schema.d.ts"] },
  js.configs.recommended,
  ...ts.configs.recommendedTypeChecked,
  a11y.flatConfigs.recommended,
  { languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } } },
  {
    plugins: { "react-hooks": hooks },
    rules: {
      // A dialog moves the focus into itself (WAI-ARIA, dialog pattern), and a page of one form into its first field.
      "jsx-a11y/no-autofocus": "off",
      // The transcript stands beside the picture and follows it.
      "jsx-a11y/media-has-caption": "off",
      "react-hooks/rules-of-hooks": "error",
      "react-hooks/exhaustive-deps": "error",
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_" }],
    },
  },
);
