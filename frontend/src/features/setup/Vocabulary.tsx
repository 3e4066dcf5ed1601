import { Alert, Box, Button, IconButton, List, ListItem, ListItemText, TextField, Typography } from "@mui/material";
import DeleteOutline from "@mui/icons-material/DeleteOutlineOutlined";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { bodyAs, client, sentenceOf, type Schemas } from "../../api/client";
import { Failure } from "../../shared/Failure";
import { Loading } from "../../shared/Loading";
import { listed } from "./templateDraft";

/** Names and terms to be spelt right, with the wrong forms that were heard. */
export function Vocabulary() {
  const queries = useQueryClient();
  const terms = useQuery({ queryKey: ["terms"], queryFn: () => bodyAs("TermsOut", client.GET("/api/setup/terms")) });
  const [text, setText] = useState("");
  const [heard, setHeard] = useState("");
  const [error, setError] = useState("");
  const change = async (answer: Promise<Schemas["TermsOut"]>): Promise<boolean> => {
    try {
      queries.setQueryData(["terms"], await answer);
      setError("");
      return true;
    } catch (problem) {
      setError(sentenceOf(problem));
      return false;
    }
  };
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const done = await change(bodyAs("TermsOut", client.POST("/api/setup/terms", { body: { text, heard: listed(heard, /,/) } })));
    if (done) {
      setText("");
      setHeard("");
    }
  };
  if (terms.isPending) return <Loading what="the vocabulary" />;
  if (terms.error) return <Failure error={terms.error} onRetry={() => void terms.refetch()} />;
  return (
    <>
      <Typography color="textSecondary">
        Words that sound or look like one of these, or like the name of one of your people, are shown on a record under More, Misheard names
        and terms. Nothing is changed before somebody says so.
      </Typography>
      <Box
        component="form"
        onSubmit={(e) => void add(e)}
        sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { sm: "1fr 1fr auto" }, alignItems: "start" }}
      >
        <TextField
          size="small"
          label="Name or term"
          required
          value={text}
          onChange={(e) => setText(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 80 } }}
        />
        <TextField
          size="small"
          label="Heard as"
          value={heard}
          onChange={(e) => setHeard(e.target.value)}
          helperText="Wrong forms, with commas between them; may stay empty."
        />
        <Button type="submit" variant="outlined" disabled={!text.trim()}>
          Add
        </Button>
      </Box>
      {error && (
        <Alert severity="error" variant="outlined">
          {error}
        </Alert>
      )}
      {terms.data.terms.length === 0 && (
        <Typography>No terms yet. Add names of places, boats, products: whatever a stranger would spell wrong.</Typography>
      )}
      <List dense>
        {terms.data.terms.map((term) => (
          <ListItem
            key={term.id}
            divider
            disableGutters
            secondaryAction={
              term.may_change && (
                <IconButton
                  size="small"
                  aria-label={`Remove ${term.text}`}
                  onClick={() =>
                    void change(bodyAs("TermsOut", client.DELETE("/api/setup/terms/{term_id}", { params: { path: { term_id: term.id } } })))
                  }
                >
                  <DeleteOutline fontSize="small" />
                </IconButton>
              )
            }
          >
            <ListItemText
              primary={term.text}
              secondary={
                [
                  term.heard.length ? `heard as ${term.heard.join(", ")}` : "",
                  term.refused.length ? `not meant by ${term.refused.join(", ")}` : "",
                ]
                  .filter(Boolean)
                  .join(" · ") || null
              }
            />
          </ListItem>
        ))}
      </List>
    </>
  );
}
