import { ListSubheader, MenuItem, TextField } from "@mui/material";

import { useTemplates } from "./useTemplates";

interface Props {
  value: string;
  label?: string;
  disabled?: boolean;
  onChoose: (key: string) => void;
}

/** Chooses the template of a meeting. */
export function TemplateField({ value, label = "Kind of meeting", disabled = false, onChoose }: Props) {
  const all = useTemplates().data?.templates ?? [];
  const own = all.filter((each) => each.id !== null);
  const known = all.some((each) => each.key === value);
  return (
    <TextField label={label} select fullWidth disabled={disabled} value={value} onChange={(e) => onChoose(e.target.value)}>
      {!known && <MenuItem value={value}>{value}</MenuItem>}
      {all
        .filter((each) => each.id === null)
        .map((each) => (
          <MenuItem key={each.key} value={each.key}>
            {each.name}
          </MenuItem>
        ))}
      {own.length > 0 && <ListSubheader>Your own</ListSubheader>}
      {own.map((each) => (
        <MenuItem key={each.key} value={each.key}>
          {each.name}
        </MenuItem>
      ))}
    </TextField>
  );
}
