import { describe, expect, it } from "vitest";

import { browserName } from "./browserName";

describe("browserName", () => {
  it.each([
    ["Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0", "Firefox on Linux"],
    ["Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0 Safari/537.36 Edg/140.0", "Edge on Windows"],
    ["Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/140.0 Mobile Safari/537.36", "Chromium on Android"],
    ["", "A browser"],
  ])("names %s", (agent, name) => {
    expect(browserName(agent)).toBe(name);
  });
});
