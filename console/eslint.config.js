import js from "@eslint/js";
import { defineConfig } from "eslint/config";
import hooks from "eslint-plugin-react-hooks";
import typescript from "typescript-eslint";

export default defineConfig(
  { ignores: ["dist", "target", "src/api/types.ts", "src/api/seriesProperties.ts"] },
  js.configs.recommended,
  typescript.configs.recommendedTypeChecked,
  hooks.configs.flat.recommended,
  { languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } } },
  { files: ["*.js", "*.ts", "scripts/*.js"], extends: [typescript.configs.disableTypeChecked] },
);
