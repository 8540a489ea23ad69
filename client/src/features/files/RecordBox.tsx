import Button from "@mui/material/Button";
import { type ChangeEvent, useRef, useState } from "react";

import { type Problem, Refused, type Schemas } from "../../api/client";
import { useFresh } from "../../api/useFresh";
import { askGarden } from "../../queue/asks";
import { sentence } from "../../ui/sentence";

const MOST_BYTES = 3_500_000;

/** A daily record of one’s own, which takes the place of the climate made for a garden. */
export function RecordBox({ garden }: { garden: number }) {
  const fresh = useFresh();
  const chooser = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState("");
  const [problems, setProblems] = useState<Problem[]>([]);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setProblems([]);
    setSaid("");
    if (file.size > MOST_BYTES) {
      setSaid(`${file.name} is larger than 3.5 MB: a hundred years of days are less.`);
      return;
    }
    try {
      const text = await file.text();
      const read = await askGarden<Schemas["RecordRead"]>(garden, "/weather/record", { text }, file.name);
      const frosts = read.last
        ? `last frost about ${read.last}, first about ${read.first}`
        : "no frost in it";
      setSaid(`${read.days} days of ${read.years} years are taken for this garden’s climate; ${frosts}.`);
      await fresh.everything();
    } catch (error) {
      if (error instanceof Refused && error.problems.length) setProblems(error.problems);
      else setSaid("The server did not answer; nothing was imported.");
    }
  };
  return (
    <section aria-label="A record of your own">
      <h2>A record of your own</h2>
      <p className="quiet">
        Days with their least and greatest temperature, as CSV:{" "}
        <code>date, low °C, high °C, rain mm, gust m/s</code>; °F, in and mph are read too. It takes the place
        of the climate made for here. Undo on the plan takes it back.
      </p>
      <Button onClick={() => chooser.current?.click()}>Choose the record</Button>
      <input
        ref={chooser}
        type="file"
        hidden
        aria-label="The record"
        accept=".csv,.txt,.tsv"
        onChange={(event: ChangeEvent<HTMLInputElement>) => {
          void take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      {said && (
        <p role="status" className="refusal">
          {said}
        </p>
      )}
      {problems.map((problem, i) => (
        <p key={i} role="alert" className="refusal">
          <strong>{problem.path}</strong>: ‘{problem.given}’ cannot be used. {sentence(problem.allowed)}
        </p>
      ))}
    </section>
  );
}
