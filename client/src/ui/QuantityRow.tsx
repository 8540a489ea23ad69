import type { ComponentProps } from "react";

import { QuantityField } from "./QuantityField";

/** A quantity in one row: its name, and the figure to write over. */
export function QuantityRow(props: ComponentProps<typeof QuantityField>) {
  return (
    <div className="row">
      <span className="label" aria-hidden="true">
        {props.label}
      </span>
      <QuantityField {...props} hideLabel />
    </div>
  );
}
