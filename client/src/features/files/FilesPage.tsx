import Button from "@mui/material/Button";
import { type ChangeEvent, type DragEvent, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";

import { api, type Garden, type Problem, Refused, type Schemas, taken } from "../../api/client";
import { useGarden } from "../../api/queries";
import { useFresh } from "../../api/useFresh";
import { askGarden, askGardenOf } from "../../queue/asks";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { Pick } from "../../ui/Pick";
import { Tick } from "../../ui/Tick";
import { RecordBox } from "./RecordBox";
import { sentence } from "../../ui/sentence";

type What = Schemas["ImportIn"]["what"];
interface Taken {
  name: string;
  text: string;
  what: What;
}

const TABLES = ["beds", "plantings", "materials", "shed"] as const;
const KINDS: { key: What; name: string }[] = [
  { key: "plan", name: "a plan file" },
  { key: "beds", name: "a table of beds" },
  { key: "plantings", name: "a table of plantings" },
  { key: "materials", name: "a table of materials" },
  { key: "shed", name: "a table of what is in the shed" },
];
const MARKS = { add: "+", change: "~", remove: "−" };
const MOST_BYTES = 3_000_000;

/** What a file most likely is, from its first line. */
function guess(text: string): What {
  if (/^\s*\{/.test(text)) return "plan";
  const head = (text.split("\n", 1)[0] ?? "").toLowerCase();
  if (head.includes("crop")) return "plantings";
  if (head.includes("like")) return "shed";
  return head.includes("item") || head.includes("price") ? "materials" : "beds";
}

/** The garden out as files, and files in: what an import does is shown before it is done. */
export function FilesPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const fresh = useFresh();
  const navigate = useNavigate();
  const [file, setFile] = useState<Taken | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const [takeAway, setTakeAway] = useState(false);
  const [preview, setPreview] = useState<Schemas["ImportOut"] | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [said, setSaid] = useState("");
  const [over, setOver] = useState(false);
  const params = { path: { garden_id: id } };
  if (garden.isError) return <Faulty error={garden.error} garden={id} />;
  if (!garden.data) return <p className="page quiet">Loading…</p>;
  const canEdit = garden.data.role !== "read";

  const failed = (error: unknown) => {
    setPreview(null);
    if (error instanceof Refused && error.problems.length) setProblems(error.problems);
    else setSaid("The server did not answer; nothing was imported.");
  };
  const look = async (next: Taken, away: boolean) => {
    setFile(next);
    setTakeAway(away);
    setProblems([]);
    setSaid("");
    try {
      setPreview(
        await taken(
          api.POST("/api/gardens/{garden_id}/import/preview", {
            params,
            body: { what: next.what, text: next.text, take_away: away },
          }),
        ),
      );
    } catch (error) {
      failed(error);
    }
  };
  const open = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (chosen.size > MOST_BYTES) {
      setSaid(`${chosen.name} is larger than 3 MB; a garden’s plan is far smaller.`);
      return;
    }
    const text = await chosen.text();
    await look({ name: chosen.name, text, what: guess(text) }, false);
  };
  const takeIn = async () => {
    if (!file || !preview) return;
    try {
      await askGarden<Garden>(
        id,
        "/import",
        { what: file.what, text: file.text, take_away: takeAway, number: preview.number },
        `${file.name} imported`,
      );
      setFile(null);
      setPreview(null);
      setSaid("Imported as one change. You can undo it on the plan.");
    } catch (error) {
      if (error instanceof Refused && error.status === 409) {
        setSaid("The garden was changed meanwhile. This is what the file changes now.");
        await look(file, takeAway);
      } else failed(error);
    }
  };
  const asNew = async () => {
    if (!file) return;
    try {
      const made = await askGardenOf(file.text);
      await fresh.again("gardens");
      await navigate(`/gardens/${made.id}`);
    } catch (error) {
      failed(error);
    }
  };
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page">
        <h1>Files</h1>
        <div className="filegrid">
          <section aria-label="Export">
            <h2>Export</h2>
            <p className="quiet">
              The garden file holds everything in this garden, in an open, documented format. Tables open in
              any spreadsheet.
            </p>
            <p className="actions">
              <Button href={`/api/gardens/${id}/plan.json`}>Plan file</Button>
              <Button href={`/api/gardens/${id}/plot.svg`}>Plan as a drawing</Button>
            </p>
            <p className="actions">
              {TABLES.map((what) => (
                <Button key={what} href={`/api/gardens/${id}/tables/${what}.csv`}>
                  {what}.csv
                </Button>
              ))}
            </p>
          </section>
          {canEdit && (
            <section aria-label="Import">
              <h2>Import</h2>
              <p className="quiet">
                A garden file or one of the tables. You see the changes before anything is saved.
              </p>
              <div
                className="drop"
                data-over={over}
                onDragOver={(event: DragEvent) => {
                  event.preventDefault();
                  setOver(true);
                }}
                onDragLeave={() => setOver(false)}
                onDrop={(event: DragEvent) => {
                  event.preventDefault();
                  setOver(false);
                  void open(event.dataTransfer.files[0]);
                }}
              >
                <Button onClick={() => chooser.current?.click()}>Choose a file, or drop one here</Button>
                <input
                  ref={chooser}
                  type="file"
                  hidden
                  aria-label="The file"
                  accept=".json,.csv,.txt,.tsv"
                  onChange={(event: ChangeEvent<HTMLInputElement>) => {
                    void open(event.target.files?.[0]);
                    event.target.value = "";
                  }}
                />
              </div>
            </section>
          )}
          {canEdit && <RecordBox garden={id} />}
        </div>
        {said && (
          <p role="status" className="refusal">
            {said}
          </p>
        )}
        {file && (
          <section aria-label="What the file does">
            <h2>{file.name}</h2>
            <div className="actions">
              <div style={{ width: 320 }}>
                <Pick
                  label="It is"
                  value={file.what}
                  choices={KINDS}
                  onPick={(what) => void look({ ...file, what: what as What }, takeAway)}
                />
              </div>
              {file.what !== "plantings" && (
                <Tick
                  label="also delete everything that is not in the file"
                  checked={takeAway}
                  onTick={(checked) => void look(file, checked)}
                />
              )}
            </div>
            {problems.length > 0 && (
              <div role="alert">
                <p>
                  <strong>Nothing was imported.</strong>{" "}
                  {problems.length === 1 ? "Correct this place:" : `Correct these ${problems.length} places:`}
                </p>
                <ul className="notes">
                  {problems.map((problem, i) => (
                    <li key={i} data-mark="!">
                      <strong>{problem.path}</strong>: ‘{problem.given}’ cannot be used.{" "}
                      {sentence(problem.allowed)}
                    </li>
                  ))}
                </ul>
              </div>
            )}
            {preview && (
              <>
                {preview.lines.length === 0 ? (
                  <p>It changes nothing. Everything in it is here already.</p>
                ) : (
                  <ul className="notes" aria-label="What it would do">
                    {preview.lines.map((line, i) => (
                      <li key={i} data-mark={MARKS[line.act]}>
                        {line.words}
                      </li>
                    ))}
                  </ul>
                )}
                <p className="actions">
                  {preview.lines.length > 0 && <Button onClick={() => void takeIn()}>Import</Button>}
                  {file.what === "plan" && (
                    <button type="button" className="plain" onClick={() => void asNew()}>
                      Make a new garden from it
                    </button>
                  )}
                  <button
                    type="button"
                    className="plain"
                    onClick={() => {
                      setFile(null);
                      setPreview(null);
                      setProblems([]);
                    }}
                  >
                    Cancel
                  </button>
                </p>
              </>
            )}
          </section>
        )}
      </main>
    </>
  );
}
