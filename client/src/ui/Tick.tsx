import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";

interface Props {
  label: string;
  checked: boolean;
  onTick: (checked: boolean) => void;
}

/** Yes or no, by a box before its words. */
export function Tick({ label, checked, onTick }: Props) {
  return (
    <FormControlLabel
      label={label}
      control={<Checkbox checked={checked} onChange={(event) => onTick(event.target.checked)} />}
    />
  );
}
