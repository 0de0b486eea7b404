import type { ComponentProps } from "react";

import { NumberField } from "./NumberField";

type Props = Pick<ComponentProps<typeof NumberField>, "label" | "value" | "onChange" | "hideLabel">;

/** A share, 0…1, typed in percent. */
export const ShareField = (props: Props) => (
  <NumberField minValue={0} maxValue={1} step={0.01} formatOptions={{ style: "percent" }} {...props} />
);
