import { Autocomplete, Box, TextField } from "@mui/material";

import { openers, usePeople } from "./people";

interface Props {
  label: string;
  value: string[];
  onChange: (names: string[]) => void;
  typed: string;
  onType: (text: string) => void;
}

/** Names of several people, chosen or typed; says which of them will be able to open the meeting. */
export function PeopleField({ label, value, onChange, typed, onType }: Props) {
  const people = usePeople().data?.people ?? [];
  const accounts = new Map(people.map((person) => [person.name, person.account?.email]));
  return (
    <Autocomplete
      multiple
      freeSolo
      autoSelect
      options={people.map((person) => person.name)}
      value={value}
      onChange={(_, names) => onChange(names)}
      inputValue={typed}
      onInputChange={(_, text) => onType(text)}
      renderOption={({ key, ...props }, name) => (
        <li key={key} {...props}>
          {name}
          <Box component="span" sx={{ color: "text.secondary", ml: 1, fontSize: "0.85rem" }}>
            {accounts.get(name) ?? ""}
          </Box>
        </li>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          label={label}
          helperText={openers(value, people) || "Choose, or type a name and press Enter. Others can be added later."}
        />
      )}
    />
  );
}
