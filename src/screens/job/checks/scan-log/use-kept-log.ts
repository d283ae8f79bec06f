"use client";

import { useCallback } from "react";
import { sendBytes } from "../../../session/api";
import { useJob } from "../../use-job";

/** Keeps a log's bytes with the job, so that it can be drawn again. Its check does not wait for it. */
export function useKeptLog(onError: (message: string) => void): (file: File) => void {
  const { id } = useJob();
  return useCallback(
    (file) => {
      void sendBytes(`jobs/${id}/files?name=${encodeURIComponent(file.name)}`, file).catch((e: Error) =>
        onError(`The log itself could not be kept: ${e.message}`),
      );
    },
    [id, onError],
  );
}
