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
import { say } from "../../texts/say";

type What = Schemas["ImportIn"]["what"];
interface Taken {
  name: string;
  text: string;
  what: What;
  /** The zip that it came in, with its photos. */
  archive: File | null;
}

const TABLES = ["beds", "plantings", "materials", "shed", "log"] as const;
const KINDS: { key: What; name: string }[] = [
  { key: "plan", name: say("files.aPlanFile") },
  { key: "beds", name: say("files.aTableOfBeds") },
  { key: "plantings", name: say("files.aTableOfPlantings") },
  { key: "materials", name: say("files.aTableOfMaterials") },
  { key: "shed", name: say("files.aTableOfWhatIsIn") },
  { key: "log", name: say("files.aLog") },
];
const MARKS = { add: "+", change: "~", remove: "−" };
const MOST_BYTES = 6_000_000;
const MOST_OF_AN_ARCHIVE = 32_000_000;

/** What a file most likely is, from its first line. */
function guess(text: string): What {
  if (/^\s*\{/.test(text)) return "plan";
  const head = (text.split("\n", 1)[0] ?? "").toLowerCase();
  if (head.includes("date") && head.includes("kind")) return "log";
  if (head.includes("crop")) return "plantings";
  if (head.includes("like")) return "shed";
  return head.includes("item") || head.includes("price") ? "materials" : "beds";
}

/** Have a garden keep the photos of a zip, and return its garden file. */
const unpacked = async (garden: number, archive: File) => {
  const path = { garden_id: garden };
  const kept = await taken(
    api.POST("/api/gardens/{garden_id}/archive", {
      params: { path },
      body: archive as never,
      bodySerializer: (body: unknown) => body as Blob,
      headers: { "Content-Type": "application/zip" },
    }),
  );
  return kept.text;
};

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
  if (!garden.data) return <p className="page quiet">{say("common.loading")}</p>;
  const canEdit = garden.data.role !== "read";

  const failed = (error: unknown) => {
    setPreview(null);
    if (error instanceof Refused && error.problems.length) setProblems(error.problems);
    else setSaid(say("files.theServerDidNotAnswerNothing"));
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
    const zipped = /\.zip$/i.test(chosen.name);
    if (chosen.size > (zipped ? MOST_OF_AN_ARCHIVE : MOST_BYTES)) {
      setSaid(say("files.isTooLarge", { name: chosen.name }));
      return;
    }
    try {
      const text = zipped ? await unpacked(id, chosen) : await chosen.text();
      await look(
        { name: chosen.name, text, what: zipped ? "plan" : guess(text), archive: zipped ? chosen : null },
        false,
      );
    } catch (error) {
      failed(error);
      setFile({ name: chosen.name, text: "", what: "plan", archive: null });
    }
  };
  const takeIn = async () => {
    if (!file || !preview) return;
    try {
      await askGarden<Garden>(
        id,
        "/import",
        { what: file.what, text: file.text, take_away: takeAway, number: preview.number },
        say("files.imported", { name: file.name }),
      );
      setFile(null);
      setPreview(null);
      setSaid(say("files.importedAsOneChangeYouCan"));
    } catch (error) {
      if (error instanceof Refused && error.status === 409) {
        setSaid(say("files.theGardenWasChangedMeanwhileThis"));
        await look(file, takeAway);
      } else failed(error);
    }
  };
  const asNew = async () => {
    if (!file) return;
    try {
      const made = await askGardenOf(file.text);
      if (file.archive) await unpacked(made.id, file.archive);
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
        <h1>{say("files.files")}</h1>
        <div className="filegrid">
          <section aria-label={say("files.export")}>
            <h2>{say("files.export")}</h2>
            <p className="quiet">{say("files.theGardenFileHoldsEverythingIn")}</p>
            <p className="actions">
              <Button href={`/api/gardens/${id}/plan.json`}>{say("files.planFile")}</Button>
              <Button href={`/api/gardens/${id}/archive.zip`}>{say("files.planFileWithPhotos")}</Button>
              <Button href={`/api/gardens/${id}/plot.svg`}>{say("files.planAsADrawing")}</Button>
            </p>
            <p className="actions">
              {TABLES.map((what) => (
                <Button key={what} href={`/api/gardens/${id}/tables/${what}.csv`}>
                  {say("files.csv", { what })}
                </Button>
              ))}
            </p>
          </section>
          {canEdit && (
            <section aria-label={say("files.import")}>
              <h2>{say("files.import")}</h2>
              <p className="quiet">{say("files.aGardenFileOrOneOf")}</p>
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
                <Button onClick={() => chooser.current?.click()}>{say("files.chooseAFileOrDropOne")}</Button>
                <input
                  ref={chooser}
                  type="file"
                  hidden
                  aria-label={say("files.theFile")}
                  accept=".json,.csv,.txt,.tsv,.zip"
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
          <section aria-label={say("files.whatTheFileDoes")}>
            <h2>{file.name}</h2>
            <div className="actions">
              <div style={{ width: 320 }}>
                <Pick
                  label={say("files.itIs")}
                  value={file.what}
                  choices={KINDS}
                  onPick={(what) => void look({ ...file, what: what as What }, takeAway)}
                />
              </div>
              {file.what !== "plantings" && file.what !== "log" && (
                <Tick
                  label={say("files.alsoDeleteEverythingThatIsNot")}
                  checked={takeAway}
                  onTick={(checked) => void look(file, checked)}
                />
              )}
            </div>
            {problems.length > 0 && (
              <div role="alert">
                <p>
                  <strong>{say("files.nothingWasImported")}</strong>{" "}
                  {problems.length === 1
                    ? say("files.correctThisPlace")
                    : say("files.correctThesePlaces", { length: problems.length })}
                </p>
                <ul className="notes">
                  {problems.map((problem, i) => (
                    <li key={i} data-mark="!">
                      <strong>{problem.path}</strong>
                      {say("files.cannotBeUsed", {
                        given: problem.given,
                        allowed: sentence(problem.allowed),
                      })}
                    </li>
                  ))}
                </ul>
              </div>
            )}
            {preview && (
              <>
                {preview.lines.length === 0 ? (
                  <p>{say("files.itChangesNothingEverythingInIt")}</p>
                ) : (
                  <ul className="notes" aria-label={say("files.whatItWouldDo")}>
                    {preview.lines.map((line, i) => (
                      <li key={i} data-mark={MARKS[line.act]}>
                        {line.words}
                      </li>
                    ))}
                  </ul>
                )}
                <p className="actions">
                  {preview.lines.length > 0 && (
                    <Button onClick={() => void takeIn()}>{say("files.import")}</Button>
                  )}
                  {file.what === "plan" && (
                    <button type="button" className="plain" onClick={() => void asNew()}>
                      {say("files.makeANewGardenFromIt")}
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
                    {say("common.cancel")}
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
