import { Box, Link, Typography } from "@mui/material";
import { useTitle } from "../../shared/useTitle";

const PARTS: [string, string, string][] = [
  ["Speech recognition", "Whisper base weights in CTranslate2 form", "MIT"],
  ["Streaming recognition", "Moonshine tiny, Useful Sensors", "MIT"],
  [
    "Who spoke",
    "segmentation and speaker embedding of “speaker-diarization-community-1”, pyannoteAI; cut apart and stored again",
    "CC BY 4.0",
  ],
  ["English parsing", "small English pipeline, Explosion", "MIT"],
  ["Sentence vectors", "all-MiniLM-L6-v2, sentence-transformers", "Apache 2.0"],
  ["Reading font", "Literata, TypeTogether", "SIL OFL 1.1"],
  ["Plain font", "Atkinson Hyperlegible, Braille Institute", "SIL OFL 1.1"],
];

/** What the application is, what it is made of, and what it promises. */
export default function About() {
  useTitle("About");
  return (
    <Box sx={{ maxWidth: 760, mx: "auto", p: { xs: 2, sm: 4 }, display: "grid", gap: 2 }}>
      <Typography variant="h1">About Nuntius</Typography>
      <Typography>
        Nuntius writes down who said what in a meeting and when, and makes minutes in which every line leads to the words behind it. All of
        it happens on this machine: no sound and no word is sent anywhere.
      </Typography>
      <Typography>
        The lines of the minutes are written by rules from the speakers’ own words. What you change, tick or name stays as you left it when
        minutes are made again. The share of the talk the minutes draw on counts each turn that a line rests on, the turns right beside it,
        and turns of the same chapter that say much the same.
      </Typography>
      <Typography variant="h2" sx={{ mt: 2 }}>
        Models and fonts
      </Typography>
      <Box component="dl" sx={{ m: 0, display: "grid", gridTemplateColumns: { sm: "190px 1fr" }, rowGap: 1 }}>
        {PARTS.map(([use, name, licence]) => (
          <Box key={use} sx={{ display: "contents" }}>
            <Typography component="dt" sx={{ fontWeight: 700 }}>
              {use}
            </Typography>
            <Typography component="dd" sx={{ m: 0 }}>
              {name}{" "}
              <Box component="span" sx={{ color: "text.secondary" }}>
                ({licence})
              </Box>
            </Typography>
          </Box>
        ))}
      </Box>
      <Typography color="textSecondary">
        The licence of “speaker-diarization-community-1” is the{" "}
        <Link href="https://creativecommons.org/licenses/by/4.0/">Creative Commons Attribution 4.0</Link> licence. All others stand in
        THIRD_PARTY.md beside the program.
      </Typography>
    </Box>
  );
}
