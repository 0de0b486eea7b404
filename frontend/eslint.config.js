import prettier from "eslint-config-prettier";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["src/api/schema.ts"] },
  ...tseslint.configs.strict,
  hooks.configs.flat["recommended-latest"],
  prettier,
  { rules: { "@typescript-eslint/no-non-null-assertion": "off" } },
);
