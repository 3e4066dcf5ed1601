import type { Source } from "./source";

/** A numbered part that the server has not acknowledged yet. */
export interface KeptPart {
  meetingId: string;
  run: number;
  number: number;
  data: ArrayBuffer;
  begun: number | null;
}

/** What the server does not know of a run yet: that it was begun, or paused behind so many parts. */
export interface KeptStep {
  meetingId: string;
  run: number;
  kind: "begin" | "pause";
  source: Source;
  parts: number;
}

/** What this browser was recording, so that it can go on after a crash. */
export interface KeptRun {
  meetingId: string;
  run: number;
  source: Source;
  deviceId: string;
  parts: number;
  active: boolean;
  at: number;
}

/** What is on this computer until the server has it. */
export interface PartStore {
  put: (part: KeptPart, run: KeptRun) => Promise<void>;
  remove: (part: KeptPart) => Promise<void>;
  parts: (meetingId: string) => Promise<KeptPart[]>;
  putStep: (step: KeptStep) => Promise<void>;
  removeStep: (step: KeptStep) => Promise<void>;
  steps: (meetingId: string) => Promise<KeptStep[]>;
  note: (run: KeptRun) => Promise<void>;
  run: (meetingId: string) => Promise<KeptRun | undefined>;
}

const NAME = "nuntius-recording";
const STORES = { parts: ["meetingId", "run", "number"], steps: ["meetingId", "run", "kind"], runs: "meetingId" };
type StoreName = keyof typeof STORES;

function opened(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open(NAME, 2);
    request.onupgradeneeded = () => {
      for (const [name, keyPath] of Object.entries(STORES))
        if (!request.result.objectStoreNames.contains(name)) request.result.createObjectStore(name, { keyPath });
    };
    request.onblocked = () => reject(new Error("Another tab holds an older version of Nuntius. Close it, then load this page again."));
    request.onsuccess = () => {
      request.result.onversionchange = () => request.result.close(); // a page of a newer version is opened
      resolve(request.result);
    };
    request.onerror = () => reject(request.error ?? new Error("This browser keeps nothing."));
  });
}

/** IndexedDB with strict durability: a part that is kept survives a crash of the browser. */
export async function openPartStore(): Promise<PartStore> {
  const database = await opened();
  const change = (work: (transaction: IDBTransaction) => void) =>
    new Promise<void>((resolve, reject) => {
      const transaction = database.transaction(Object.keys(STORES), "readwrite", { durability: "strict" });
      transaction.oncomplete = () => resolve();
      transaction.onabort = transaction.onerror = () => reject(transaction.error ?? new Error("This browser keeps nothing."));
      work(transaction);
    });
  const read = <T>(store: StoreName, ask: (store: IDBObjectStore) => IDBRequest<T>) =>
    new Promise<T>((resolve, reject) => {
      const request = ask(database.transaction(store).objectStore(store));
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error ?? new Error("This browser keeps nothing."));
    });
  const ofMeeting = (meetingId: string) => IDBKeyRange.bound([meetingId], [meetingId, []]); // an array sorts behind numbers and texts
  return {
    put: (part, run) =>
      change((t) => {
        t.objectStore("parts").put(part);
        t.objectStore("runs").put(run);
      }),
    remove: (part) => change((t) => t.objectStore("parts").delete([part.meetingId, part.run, part.number])),
    parts: (meetingId) => read("parts", (s) => s.getAll(ofMeeting(meetingId)) as IDBRequest<KeptPart[]>),
    putStep: (step) => change((t) => t.objectStore("steps").put(step)),
    removeStep: (step) => change((t) => t.objectStore("steps").delete([step.meetingId, step.run, step.kind])),
    steps: (meetingId) => read("steps", (s) => s.getAll(ofMeeting(meetingId)) as IDBRequest<KeptStep[]>),
    note: (run) => change((t) => t.objectStore("runs").put(run)),
    run: (meetingId) => read("runs", (s) => s.get(meetingId) as IDBRequest<KeptRun | undefined>),
  };
}
