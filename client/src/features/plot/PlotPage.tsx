import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";

import { type Garden, type Schemas } from "../../api/client";
import { useCatalogue, useGarden, useLines, useShade } from "../../api/queries";
import { Bar } from "../../ui/Bar";
import { Conflicts } from "../../ui/Conflicts";
import { Faulty } from "../../ui/Faulty";
import { Panel } from "../../ui/Panel";
import { GardenLinks } from "../../ui/GardenLinks";
import { localCommands } from "../../ui/localCommands";
import { useUndoKeys } from "../../ui/useUndoKeys";
import { BedPanel } from "./BedPanel";
import { FeaturePanel } from "./FeaturePanel";
import { GardenPanel } from "./GardenPanel";
import { Plan } from "./Plan";
import { BedList } from "./BedList";
import { type Moment, monthDay, SHADE_START, ShadeBar } from "./ShadeBar";
import { StructurePanel } from "./StructurePanel";
import { TakenAway } from "./TakenAway";
import { Unreadable } from "./Unreadable";
import { Welcome } from "./Welcome";
import { changeOf } from "./placing";
import { usePlan } from "./usePlan";
import { say } from "../../texts/say";

/** The garden in plan, with what is chosen on the left and how everything stands on the right. */
export function PlotPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const catalogue = useCatalogue(garden.data?.units);
  if (garden.isError) return <Faulty error={garden.error} garden={id} />;
  if (!garden.data || !catalogue.data) return <p className="page quiet">{say("common.loading")}</p>;
  return <Plot key={garden.data.id} garden={garden.data} catalogue={catalogue.data} />;
}

function Plot({ garden, catalogue }: { garden: Garden; catalogue: Schemas["Catalogue"] }) {
  const plan = usePlan(garden);
  const lines = useLines(garden);
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const [moment, setMoment] = useState<Moment | null>(null);
  const [skipped, setSkipped] = useState(false);
  const chosen = params.get("on");
  const canEdit = garden.role !== "read";
  const kind = garden.beds.some((each) => each.key === chosen)
    ? "bed"
    : garden.structures.some((each) => each.key === chosen)
      ? "structure"
      : garden.features.some((each) => each.key === chosen)
        ? "feature"
        : null;
  const choose = (key: string | null) =>
    setParams(
      (now) => {
        if (key === null) now.delete("on");
        else now.set("on", key);
        return now;
      },
      { replace: true },
    );
  useUndoKeys(plan.undo, plan.redo);
  const made = plan.made.at(-1);
  useEffect(() => {
    if (made) choose(made);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each thing that is made
  }, [made]);
  const greeted = useRef("");
  useEffect(() => {
    // what was just made is named first
    if (!made || chosen !== made || greeted.current === made) return;
    greeted.current = made;
    document.querySelector<HTMLInputElement>(".plot .side input")?.select();
  }, [made, chosen]);
  const shade = useShade(garden, moment && { date: monthDay(moment.day), hour: moment.hour });
  const { undo, redo, put } = plan;
  useEffect(
    () =>
      canEdit
        ? localCommands.offer([
            {
              name: say("plot.undo"),
              hint: garden.undo ?? say("plot.nothingToUndo"),
              keys: "Ctrl Z",
              run: undo,
            },
            {
              name: say("plot.redo"),
              hint: garden.redo ?? say("plot.nothingToRedo"),
              keys: "Ctrl Shift Z",
              run: redo,
            },
            {
              name: say("plot.shade"),
              hint: say("plot.onThePlan"),
              run: () => setMoment((now) => (now ? null : SHADE_START)),
            },
            ...(chosen && kind
              ? [
                  {
                    name: say("plot.copy"),
                    hint: say("plot.theSelectedItem"),
                    run: () =>
                      put({
                        ...changeOf(kind, `${chosen}-copy`.slice(0, 64), {}),
                        act: "add",
                        copy_of: chosen,
                      }),
                  },
                  {
                    name: say("plot.remove"),
                    hint: say("plot.theSelectedItem"),
                    keys: "Delete",
                    run: () => put({ ...changeOf(kind, chosen, {}), act: "remove" }),
                  },
                ]
              : []),
          ])
        : undefined,
    [canEdit, garden.undo, garden.redo, undo, redo, put, chosen, kind],
  );
  const bed = garden.beds.find((each) => each.key === chosen);
  const row = garden.structures.find((each) => each.key === chosen);
  const feature = garden.features.find((each) => each.key === chosen);
  const open = (key: string) => {
    const found = garden.structures.find((each) => each.key === key);
    if (found) void navigate(`/structures/${found.id}`);
    else document.querySelector<HTMLElement>(".plot .side input")?.focus();
  };
  const shared = { garden, plan, catalogue, canEdit };
  const empty = garden.beds.length + garden.features.length === 0 && canEdit && !skipped && plan.idle;
  return (
    <>
      <Bar garden={garden}>
        <span className="grow trail" />
        {canEdit && (
          <>
            <button
              type="button"
              className="plain"
              onClick={plan.undo}
              disabled={garden.undo === null || !plan.idle}
              title={garden.undo ? say("plot.ctrlZUndo", { undo: garden.undo }) : "Ctrl Z"}
            >
              {say("plot.undo2")}
            </button>
            <button
              type="button"
              className="plain"
              onClick={plan.redo}
              disabled={garden.redo === null || !plan.idle}
              title={garden.redo ? say("plot.ctrlShiftZAgain", { redo: garden.redo }) : "Ctrl Shift Z"}
            >
              {say("plot.redo2")}
            </button>
          </>
        )}
        <GardenLinks garden={garden} />
      </Bar>
      {plan.refusal && (
        <p role="alert" className="strip">
          {plan.refusal}
        </p>
      )}
      {canEdit && <TakenAway said={plan.taken} onUndo={plan.undo} onClose={plan.forget} />}
      {plan.conflict && <Conflicts things={plan.conflict.things} onSettle={plan.settle} />}
      {empty ? (
        <Welcome garden={garden} catalogue={catalogue} onSkip={() => setSkipped(true)} />
      ) : (
        <main className="plot">
          <div className={bed || row || feature ? "side" : "side idle"}>
            <Panel key={chosen ?? ""} name={say("plot.thisPart")}>
              {bed && (
                <BedPanel
                  key={bed.key}
                  bed={bed}
                  written={plan.writtenOf(bed.key) ?? bed.written}
                  {...shared}
                />
              )}
              {row && (
                <StructurePanel
                  key={row.key}
                  row={row}
                  line={lines.get(row.key)}
                  written={plan.writtenOf(row.key) ?? row.written}
                  {...shared}
                />
              )}
              {feature && (
                <FeaturePanel
                  key={feature.key}
                  feature={feature}
                  written={plan.writtenOf(feature.key) ?? feature.written}
                  {...shared}
                />
              )}
              {!bed && !row && !feature && <GardenPanel onChoose={choose} {...shared} />}
            </Panel>
          </div>
          <div className="stage">
            <Panel name={say("plot.thePlan")}>
              <Plan
                garden={garden}
                plan={plan}
                lines={lines}
                chosen={chosen}
                onChoose={choose}
                onOpen={open}
                shade={moment ? shade.data : undefined}
                canEdit={canEdit}
              />
            </Panel>
            <Panel name={say("plot.theShade")}>
              <ShadeBar shade={shade.data} moment={moment} onMoment={setMoment} />
            </Panel>
          </div>
          <aside className="path" aria-label={say("plot.bedsAndSupports")}>
            {garden.unreadable.length > 0 && (
              <Unreadable
                rows={garden.unreadable}
                onTakeAway={
                  canEdit
                    ? (row) => plan.put({ ...changeOf(row.kind as "bed", row.key, {}), act: "remove" })
                    : undefined
                }
              />
            )}
            {garden.beds.length === 0 && <p className="quiet">{say("plot.thereIsNoBedYetAdd")}</p>}
            <Panel name={say("plot.theList")}>
              <BedList garden={garden} lines={lines} chosen={chosen} canEdit={canEdit} onChoose={choose} />
            </Panel>
            {garden.structures.length > 0 && (
              <p className="rollfoot">
                <Link to={`/gardens/${garden.id}/parts`}>{say("plot.shoppingListForTheGarden")}</Link>
              </p>
            )}
          </aside>
        </main>
      )}
    </>
  );
}
