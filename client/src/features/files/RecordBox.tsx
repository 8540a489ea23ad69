import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { type ChangeEvent, useRef, useState } from "react";

import { type Problem, Refused, type Schemas } from "../../api/client";
import { useFresh } from "../../api/useFresh";
import { askGarden } from "../../queue/asks";
import { sentence } from "../../ui/sentence";
import { say } from "../../texts/say";

const MOST_BYTES = 3_500_000;

/** A daily record of one’s own, which takes the place of the climate made for a garden. */
export function RecordBox({ garden }: { garden: number }) {
  const fresh = useFresh();
  const chooser = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState("");
  const [problems, setProblems] = useState<Problem[]>([]);
  const [typed, setTyped] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_BYTES) {
      setProblems([]);
      setSaid(say("files.isLargerThan35Mb", { name: file.name }));
      return;
    }
    await send(await file.text(), file.name);
  };
  const send = async (text: string, name: string) => {
    setProblems([]);
    setSaid("");
    try {
      const read = await askGarden<Schemas["RecordRead"]>(garden, "/weather/record", { text }, name);
      const frosts = read.last
        ? say("files.lastFrostAboutFirstAbout", { last: read.last, first: read.first })
        : say("files.noFrostInIt");
      setSaid(
        read.days
          ? say("files.daysOfYearsAreTakenFor", { days: read.days, years: read.years, frosts })
          : say("files.twelveMonthsAreTaken"),
      );
      await fresh.everything();
    } catch (error) {
      if (error instanceof Refused && error.problems.length) setProblems(error.problems);
      else setSaid(say("files.theServerDidNotAnswerNothing"));
    }
  };
  return (
    <section aria-label={say("files.aRecordOfYourOwn")}>
      <h2>{say("files.aRecordOfYourOwn")}</h2>
      <p className="quiet">
        {say("files.daysWithTheirLeastAndGreatest")} <code>{say("files.dateLowCHighCRain")}</code>
        {say("files.fInAndMphAreRead")}
      </p>
      <Button onClick={() => chooser.current?.click()}>{say("files.chooseTheRecord")}</Button>
      <p className="quiet">{say("files.orTwelveMonths")}</p>
      <TextField
        multiline
        minRows={4}
        maxRows={13}
        fullWidth
        size="small"
        label={say("files.monthlyMeans")}
        placeholder={say("files.monthlyMeansLookLike")}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <Button disabled={!typed.trim()} onClick={() => void send(typed, say("files.monthlyMeans"))}>
        {say("files.useTheMonths")}
      </Button>
      <input
        ref={chooser}
        type="file"
        hidden
        aria-label={say("files.theRecord")}
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
          <strong>{problem.path}</strong>
          {say("files.cannotBeUsed", { given: problem.given, allowed: sentence(problem.allowed) })}
        </p>
      ))}
    </section>
  );
}
