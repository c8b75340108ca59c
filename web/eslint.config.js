import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "src/shared/api/schema.d.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  reactHooks.configs.flat.recommended,
  { rules: { "max-len": ["error", { code: 120 }] } },
  // a sentence stays on one line, so that it can be searched and translated as a whole
  { files: ["**/strings.ts"], rules: { "max-len": "off" } },
);
