import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

// each folder may import from those before it, as the layers of the server and the core do
const LAYERS = [
  ["shared"],
  ["model", "sheet", "heightlog", "editions", "session"],
  ["review"],
  ["causes"],
  ["bench"],
  ["stages", "reviews", "account", "library"],
];
const boundaries = LAYERS.flatMap((layer, i) =>
  layer.map((folder) => ({
    files: [`src/${folder}/**`],
    ignores: ["**/*.test.ts", "**/*.test.tsx"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [...LAYERS.slice(i + 1).flat(), ...layer.filter((other) => other !== folder)].map((other) => ({
            regex: `^(\\.\\./)+${other}/`,
            message: `${folder} is below or beside ${other}`,
          })),
        },
      ],
    },
  })),
);

export default tseslint.config(
  { ignores: ["dist", "src/shared/api/schema.d.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  reactHooks.configs.flat.recommended,
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "max-len": ["error", { code: 120 }],
      // counts are written into sentences
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
    },
  },
  ...boundaries,
  // a sentence stays on one line, so that it can be searched and translated as a whole
  { files: ["**/strings.ts"], rules: { "max-len": "off" } },
);
