"use client";

import { Camera, ImagePlus } from "lucide-react";
import { useState } from "react";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { Offline, Refused } from "../session/api";
import { cannotKeep } from "../session/device-store";
import { keepPicture, usePictureHere } from "../session/picture-outbox";
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
          <Thumbnail jobId={id} sha256={sha256} says={`Taken at the car, ${i + 1} of ${pictures.length}`} />
          {onRemove && <Button onClick={() => onRemove(sha256)}>Leave out</Button>}
        </li>
      ))}
    </ul>
  );
}

/** A picture from the server, or from this device while it is here alone. */
export function Thumbnail({ jobId, sha256, says }: { jobId: string; sha256: string; says: string }) {
  const here = usePictureHere(jobId, sha256);
  const look = "h-28 w-40 rounded-md border border-edge object-cover";
  if (here === undefined) return <div className={look} />;
  return (
    <a href={here ?? pictureUrl(jobId, sha256)} target="_blank" rel="noreferrer">
      {/* biome-ignore lint/performance/noImgElement: the server has made the thumbnail already */}
      <img src={here ?? pictureUrl(jobId, sha256, true)} alt={says} className={look} />
    </a>
  );
}

/** The pictures that a draft holds, whatever a damaged device kept there. */
export const picturesIn = (kept: unknown): readonly string[] =>
  Array.isArray(kept) ? kept.filter((picture) => typeof picture === "string") : [];

/** Adds pictures from the device's camera or its files: kept here at once, named by their content, and sent before what names them. */
export function Pictures({ value, onChange }: { value: readonly string[]; onChange: (pictures: string[]) => void }) {
  const { id } = useJob();
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  const take = async (file: File) => {
    setBusy(true);
    setError(undefined);
    try {
      if (file.size > 15 * 1024 * 1024) return setError("The picture is larger than 15 MB: take it at a lower resolution");
      const sha256 = await keepPicture(id, file);
      onChange([...value.filter((p) => p !== sha256), sha256]);
    } catch (e) {
      setError(e instanceof Refused || e instanceof Offline ? e.message : cannotKeep(e));
    } finally {
      setBusy(false);
    }
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
