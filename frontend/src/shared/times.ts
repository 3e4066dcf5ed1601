/** `m:ss` below an hour, else `h:mm:ss`; cut, never rounded up past what was recorded. */
export function clock(seconds: number): string {
  const total = Math.max(0, Math.floor(seconds));
  const [h, m, s] = [Math.floor(total / 3600), Math.floor((total % 3600) / 60), total % 60];
  const two = (n: number) => String(n).padStart(2, "0");
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

/** A duration in words: `41 min`, `1 h 5 min`, `50 s`. */
export function lasting(seconds: number): string {
  if (seconds < 60) return `${Math.floor(seconds)} s`;
  const minutes = Math.floor(seconds / 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** About how long something still takes. */
export function remaining(seconds: number): string {
  if (seconds < 10) return "a few seconds left";
  if (seconds < 90) return `about ${Math.ceil(seconds / 10) * 10} s left`;
  return `about ${Math.ceil(seconds / 60)} min left`;
}

/** `Tue 6 Oct 2026` of an ISO date or moment, in the given zone. */
export function day(iso: string, zone?: string): string {
  const date = iso.length === 10 ? new Date(`${iso}T12:00:00Z`) : new Date(iso);
  const options: Intl.DateTimeFormatOptions = { weekday: "short", day: "numeric", month: "short", year: "numeric" };
  return new Intl.DateTimeFormat("en-GB", { ...options, timeZone: iso.length === 10 ? "UTC" : zone }).format(date).replace(",", "");
}

/** Day and hour of a moment, by this computer's own zone: `Tue 6 Oct 2026, 09:30`. */
export function moment(iso: string): string {
  return `${day(iso)}, ${hour(iso)}`;
}

/** `09:30` of a moment, in the given zone. */
export function hour(iso: string, zone?: string): string {
  return new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone: zone }).format(new Date(iso));
}

/** `2026-10-06T09:30` in this place's time, as the date field wants it. */
export function localMoment(date: Date): string {
  return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}
