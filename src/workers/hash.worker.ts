import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { expose } from "comlink";

const BLOCK = 1 << 20;

/** SHA-256 of a file, off the main thread: on plain HTTP the browser's own is not to be had. */
const api = {
  sha256: async (file: Blob): Promise<string> => {
    const hash = sha256.create();
    for (let at = 0; at < file.size; at += BLOCK) hash.update(new Uint8Array(await file.slice(at, at + BLOCK).arrayBuffer()));
    return bytesToHex(hash.digest());
  },
};
export type HashWorker = typeof api;
expose(api);
