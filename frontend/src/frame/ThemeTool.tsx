import { Moon, Sun } from "lucide-react";
import { TooltipTrigger } from "react-aria-components";

import { chooseTheme, useTheme } from "../theme/theme";
import { Button } from "../ui/Button";
import { Hint } from "../ui/Hint";

/** Light for daylight, dark for the dark. */
export function ThemeTool() {
  const theme = useTheme((state) => state.theme);
  const other = theme === "dark" ? "light" : "dark";
  const Picture = theme === "dark" ? Sun : Moon;
  return (
    <TooltipTrigger delay={300}>
      <Button data-variant="plain" aria-label={`Use the ${other} theme`} onPress={() => chooseTheme(other)}>
        <Picture size={18} aria-hidden="true" />
      </Button>
      <Hint>Use the {other} theme</Hint>
    </TooltipTrigger>
  );
}
