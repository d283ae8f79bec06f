"use client";

import { Camera, ImagePlus } from "lucide-react";
import { useState } from "react";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { sendBytes } from "../session/api";
import { useJob } from "./use-job";

const pictureUrl = (jobId: string, sha256: string, thumbnail = false) =>
  `/api/v1/jobs/${jobId}/pictures/${sha256}${thumbnail ? "?thumbnail" : ""}`;

/** Pictures kept with a job, as thumbnails that open whole. */
export function Thumbnails({ pictures, onRemove }: { pictures: readonly string[]; onRemove?: (sha256: string) => void }) {
  const { id } = useJob();
  if (pictures.length === 0) return null;
  return (
    <ul className="flex flex-wrap gap-3">
      {pictures.map((sha256, i) => (
        <li key={sha256} className="flex flex-col gap-1">
          <a href={pictureUrl(id, sha256)} target="_blank" rel="noreferrer">
            {/* biome-ignore lint/performance/noImgElement: the server has made the thumbnail already */}
            <img
              src={pictureUrl(id, sha256, true)}
              alt={`Taken at the car, ${i + 1} of ${pictures.length}`}
              className="h-28 w-40 rounded-md border border-edge object-cover"
            />
          </a>
          {onRemove && <Button onClick={() => onRemove(sha256)}>Leave out</Button>}
        </li>
      ))}
    </ul>
  );
}

/** The pictures that a draft holds, whatever a damaged device kept there. */
export const picturesIn = (kept: unknown): readonly string[] =>
  Array.isArray(kept) ? kept.filter((picture) => typeof picture === "string") : [];

/** Adds pictures from the device's camera or its files: kept by the server at once, named by their content. */
export function Pictures({ value, onChange }: { value: readonly string[]; onChange: (pictures: string[]) => void }) {
  const { id } = useJob();
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  const take = async (file: File) => {
    setBusy(true);
    setError(undefined);
    try {
      if (file.size > 15 * 1024 * 1024) throw new Error("The picture is larger than 15 MB: take it at a lower resolution");
      const { sha256 } = await sendBytes<{ sha256: string }>(`jobs/${id}/pictures?name=${encodeURIComponent(file.name)}`, file);
      onChange([...value.filter((p) => p !== sha256), sha256]);
    } catch (e) {
      setError(e instanceof Error ? e.message : String(e));
    }
    setBusy(false);
  };
  return (
    <div className="flex flex-col gap-3">
      <Thumbnails pictures={value} onRemove={(p) => onChange(value.filter((x) => x !== p))} />
      <div className="flex flex-wrap items-center gap-3">
        <FileButton label="Picture from the camera" accept="image/*" camera onFile={(f) => void take(f)}>
          <Camera aria-hidden size={18} /> Take a picture
        </FileButton>
        <FileButton label="Picture from a file" accept="image/*" onFile={(f) => void take(f)}>
          <ImagePlus aria-hidden size={18} /> Add a picture
        </FileButton>
        {busy && <span role="status">Keeping it…</span>}
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
    </div>
  );
}
