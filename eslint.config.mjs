import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

export default [
  { ignores: ["node_modules/", ".next/", "build/", "next-env.d.ts", "docs/"] },
  ...ts.configs.recommended,
  { rules: { "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", ignoreRestSiblings: true }] } },
  { files: ["**/*.cjs"], rules: { "@typescript-eslint/no-require-imports": "off" } },
  {
    files: ["src/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  {
    // Rules that know types: no promise is dropped, no assertion hides that nothing is asserted.
    files: ["src/**/*.{ts,tsx}", "tests/**/*.ts"],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
      "@typescript-eslint/await-thenable": "error",
      "@typescript-eslint/no-unnecessary-type-assertion": "error",
    },
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-globals": [
        "error",
        "Date",
        "performance",
        "console",
        "setTimeout",
        "setInterval",
        "requestAnimationFrame",
        "window",
        "document",
        "self",
        "process",
        "crypto",
      ].map((v, i) => (i ? { name: v, message: "core is pure: take it as an argument" } : v)),
      "no-restricted-properties": ["error", { object: "Math", property: "random", message: "core takes a seed" }],
    },
  },
];
