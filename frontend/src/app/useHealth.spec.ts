import { describe, expect, it } from "vitest";

import { faultsOf } from "./useHealth";

describe("faultsOf", () => {
  const fault = { name: "disk" as const, detail: "The disk is full." };

  it("reads a healthy, a degraded and a failed answer alike", () => {
    expect(faultsOf({ data: { status: "ok", version: "1", faults: [] } })).toEqual([]);
    expect(faultsOf({ data: { status: "degraded", version: "1", faults: [fault] } })).toEqual([fault]);
    expect(faultsOf({ error: { status: "down", version: "1", faults: [fault] } })).toEqual([fault]);
  });

  it("says nothing where there is no answer", () => {
    expect(faultsOf({})).toEqual([]);
  });
});
