import type { Source } from "./source";

/** A numbered part that the server has not acknowledged yet. */
export interface KeptPart {
  meetingId: string;
  run: number;
  number: number;
  data: ArrayBuffer;
  begun: number | null;
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

/** Parts on this computer until the server has them. */
export interface PartStore {
  put: (part: KeptPart, run: KeptRun) => Promise<void>;
  remove: (part: KeptPart) => Promise<void>;
  parts: (meetingId: string) => Promise<KeptPart[]>;
  note: (run: KeptRun) => Promise<void>;
  run: (meetingId: string) => Promise<KeptRun | undefined>;
}

const NAME = "nuntius-recording";

function opened(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open(NAME, 1);
    request.onupgradeneeded = () => {
      request.result.createObjectStore("parts", { keyPath: ["meetingId", "run", "number"] });
      request.result.createObjectStore("runs", { keyPath: "meetingId" });
    };
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error ?? new Error("This browser keeps nothing."));
  });
}

/** IndexedDB with strict durability: a part that is kept survives a crash of the browser. */
export async function openPartStore(): Promise<PartStore> {
  const database = await opened();
  const change = (work: (transaction: IDBTransaction) => void) =>
    new Promise<void>((resolve, reject) => {
      const transaction = database.transaction(["parts", "runs"], "readwrite", { durability: "strict" });
      transaction.oncomplete = () => resolve();
      transaction.onabort = transaction.onerror = () => reject(transaction.error ?? new Error("This browser keeps nothing."));
      work(transaction);
    });
  const read = <T>(store: string, ask: (store: IDBObjectStore) => IDBRequest<T>) =>
    new Promise<T>((resolve, reject) => {
      const request = ask(database.transaction(store).objectStore(store));
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error ?? new Error("This browser keeps nothing."));
    });
  return {
    put: (part, run) =>
      change((t) => {
        t.objectStore("parts").put(part);
        t.objectStore("runs").put(run);
      }),
    remove: (part) => change((t) => t.objectStore("parts").delete([part.meetingId, part.run, part.number])),
    parts: (meetingId) =>
      read("parts", (s) => s.getAll(IDBKeyRange.bound([meetingId, 0, 0], [meetingId, 1e9, 1e9])) as IDBRequest<KeptPart[]>),
    note: (run) => change((t) => t.objectStore("runs").put(run)),
    run: (meetingId) => read("runs", (s) => s.get(meetingId) as IDBRequest<KeptRun | undefined>),
  };
}
