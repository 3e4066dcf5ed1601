/** What a file of a meeting is. */
export type Role = "recording" | "transcript" | "chat" | "bundle";

export const ROLE_NAMES: Record<Role, string> = { recording: "Recording", transcript: "Transcript", chat: "Chat", bundle: "Whole meeting" };

const SOUND = /\.(wav|flac|mp3|m4a|aac|ogg|oga|opus|webm|mp4|mov|mkv|wma)$/i;
const CAPTIONS = /\.(vtt|srt|ttml|dfxp|docx)$/i;
export const TEXT = /\.(txt|text|md|log)$/i;

/** What each of some files most likely is, by name: chats are called so, or are the second text beside a transcript. */
export function guessedRoles(names: readonly string[]): Role[] {
  const hasCaptions = names.some((name) => CAPTIONS.test(name));
  let texts = 0;
  return names.map((name) => {
    if (/\.zip$/i.test(name)) return "bundle";
    if (SOUND.test(name)) return "recording";
    if (CAPTIONS.test(name)) return "transcript";
    if (!TEXT.test(name)) return "recording";
    texts += 1;
    return /chat/i.test(name) || hasCaptions || texts > 1 ? "chat" : "transcript";
  });
}

/** Why some files cannot be one meeting; "" where they can. */
export function whyNot(roles: readonly Role[]): string {
  const count = (role: Role) => roles.filter((each) => each === role).length;
  if (count("bundle") && roles.length > 1) return "A whole meeting comes by itself. Leave the other files out.";
  if (count("recording") > 1) return "These are two recordings. Bring in one, then the other.";
  if (count("transcript") > 1) return "These are two transcripts. Leave one out, or say which is the chat.";
  if (count("chat") > 1) return "These are two chats. Leave one out.";
  if (count("chat") && roles.length === 1) return "A chat needs the recording or the transcript that it belongs to. Choose it, too.";
  return "";
}

/** Which file the meeting is made from: the recording, else the transcript. */
export function leading(roles: readonly Role[]): number {
  const at = roles.findIndex((role) => role === "recording" || role === "bundle");
  return at >= 0 ? at : Math.max(0, roles.indexOf("transcript"));
}
