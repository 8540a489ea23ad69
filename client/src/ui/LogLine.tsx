import Button from "@mui/material/Button";
import { useId, useState } from "react";

import { Refused } from "../api/client";
import { useLineRead } from "../api/log";
import { scaledPhoto } from "./scaledPhoto";
import { useSettled } from "./useSettled";
import { sentence } from "./sentence";
import { say } from "../texts/say";
import { useLogging } from "./useLogging";

const MOST = 3; // photos of one entry, as many as one sending carries

interface Props {
  garden: number;
  /** Key of the support or bed at which it is written, where there is one. */
  about: string;
  /** The part that is meant where the line names none. */
  member?: string;
}

/** What happened, in one line: told back while it is typed, saved whatever the line to the server does. */
export function LogLine({ garden, about, member = "" }: Props) {
  const [line, setLine] = useState("");
  const [saved, setSaved] = useState("");
  const [photos, setPhotos] = useState<readonly string[]>([]);
  const [unread, setUnread] = useState("");
  const id = useId();
  const log = useLogging(garden);
  const settled = useSettled(line);
  const read = useLineRead(garden, settled, about);
  const problem = read.error instanceof Refused ? read.error.problems[0] : undefined;
  const told = settled === line ? read.data : undefined;
  const take = async (files: FileList | null) => {
    setUnread("");
    for (const file of files ?? []) {
      try {
        const photo = await scaledPhoto(file);
        setPhotos((all) => [...all, photo].slice(0, MOST));
      } catch {
        setUnread(say("log.noPicture", { name: file.name }));
      }
    }
  };
  const save = () => {
    const words = line.trim() || say("log.aPhoto");
    log(
      {
        ...(line.trim() ? { line: line.trim() } : { kind: "photo" as const }),
        ...(about && { structure: about }),
        ...(member && { member }),
        ...(photos.length && { pictures: [...photos] }),
      },
      words,
    );
    setSaved(words);
    setLine("");
    setPhotos([]);
  };
  return (
    <form
      className="logline-form noprint"
      aria-label={say("log.writeInTheLog")}
      onSubmit={(event) => {
        event.preventDefault();
        if ((line.trim() || photos.length) && !(problem && settled === line)) save();
      }}
    >
      <label className="row">
        <span className="label">{member ? say("log.whatHappenedToThisPart") : say("log.whatHappened")}</span>
        <input
          className="input"
          value={line}
          maxLength={200}
          placeholder={member ? say("log.leansFourCentimetres") : say("log.sixPoundsOfTomatoes")}
          aria-invalid={problem !== undefined && settled === line}
          onChange={(event) => setLine(event.target.value)}
        />
      </label>
      <Button type="submit" variant="contained" disabled={!line.trim() && !photos.length}>
        {say("log.save")}
      </Button>
      <span className="phototake">
        <input
          id={id}
          type="file"
          accept="image/*"
          capture="environment"
          multiple
          className="visuallyhidden"
          onChange={(event) => {
            void take(event.target.files).finally(() => {
              event.target.value = "";
            });
          }}
        />
        <label htmlFor={id} className="button">
          {say("log.takeAPhoto")}
        </label>
        {photos.map((photo, at) => (
          <button
            key={photo.slice(-40)}
            type="button"
            className="plain"
            aria-label={say("log.removePhoto", { number: at + 1 })}
            onClick={() => setPhotos((all) => all.filter((each) => each !== photo))}
          >
            <img src={`data:image/jpeg;base64,${photo}`} alt="" />
          </button>
        ))}
      </span>
      {unread && (
        <p role="alert" className="refusal">
          {unread}
        </p>
      )}
      <p role="status" className="quiet hint">
        {told
          ? say("log.told", {
              name: told.name,
              words: told.words,
              place: told.place || say("log.theGarden"),
              label: told.label,
            })
          : line === "" && saved
            ? say("log.saved", { line: saved })
            : ""}
      </p>
      {problem && settled === line && line !== "" && (
        <p role="alert" className="refusal">
          {say("log.cannotBeUsed", { line, allowed: sentence(problem.allowed) })}
        </p>
      )}
    </form>
  );
}
