/** The shortest start of a name that no other name shares, at most three letters; labels of voices keep their letter. */
export function initials(name: string, all: readonly string[]): string {
  const label = /^(?:Voice|Speaker)\s+(\S{1,3})$/.exec(name);
  if (label?.[1]) return label[1];
  for (let length = 1; length < 3; length += 1) {
    const start = name.slice(0, length);
    if (all.filter((other) => other.startsWith(start)).length === 1) return start;
  }
  return name
    .split(/\s+/)
    .map((part) => part.charAt(0))
    .join("")
    .slice(0, 3);
}
