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
import { Roll } from "./Roll";
import { type Moment, monthDay, SHADE_START, ShadeBar } from "./ShadeBar";
import { StructurePanel } from "./StructurePanel";
import { TakenAway } from "./TakenAway";
import { Unreadable } from "./Unreadable";
import { Welcome } from "./Welcome";
import { changeOf } from "./placing";
import { usePlan } from "./usePlan";

/** The garden in plan, with what is chosen on the left and how everything stands on the right. */
export function PlotPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const catalogue = useCatalogue(garden.data?.units);
  if (garden.isError) return <Faulty error={garden.error} garden={id} />;
  if (!garden.data || !catalogue.data) return <p className="page quiet">Loading…</p>;
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
            { name: "Undo", hint: garden.undo ?? "nothing to undo", keys: "Ctrl Z", run: undo },
            { name: "Redo", hint: garden.redo ?? "nothing to redo", keys: "Ctrl Shift Z", run: redo },
            { name: "Shade", hint: "on the plan", run: () => setMoment((now) => (now ? null : SHADE_START)) },
            ...(chosen && kind
              ? [
                  {
                    name: "Copy",
                    hint: "the selected item",
                    run: () =>
                      put({
                        ...changeOf(kind, `${chosen}-copy`.slice(0, 64), {}),
                        act: "add",
                        copy_of: chosen,
                      }),
                  },
                  {
                    name: "Remove",
                    hint: "the selected item",
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
              title={garden.undo ? `Ctrl Z: undo “${garden.undo}”` : "Ctrl Z"}
            >
              undo
            </button>
            <button
              type="button"
              className="plain"
              onClick={plan.redo}
              disabled={garden.redo === null || !plan.idle}
              title={garden.redo ? `Ctrl Shift Z: “${garden.redo}” again` : "Ctrl Shift Z"}
            >
              redo
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
            <Panel key={chosen ?? ""} name="This part">
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
            <Panel name="The plan">
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
            <Panel name="The shade">
              <ShadeBar shade={shade.data} moment={moment} onMoment={setMoment} />
            </Panel>
          </div>
          <aside className="path" aria-label="Beds and supports">
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
            {garden.beds.length === 0 && (
              <p className="quiet">There is no bed yet. Add a bed, then plan a support on it.</p>
            )}
            <Panel name="The list">
              <Roll garden={garden} lines={lines} chosen={chosen} canEdit={canEdit} onChoose={choose} />
            </Panel>
            {garden.structures.length > 0 && (
              <p className="rollfoot">
                <Link to={`/gardens/${garden.id}/parts`}>Shopping list for the garden</Link>
              </p>
            )}
          </aside>
        </main>
      )}
    </>
  );
}
