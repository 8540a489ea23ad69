import Button from "@mui/material/Button";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";

import { type Garden, Refused, type Report, type Schemas } from "../../api/client";
import { useCatalogue, useGarden, useOrder, useProposal, useSupports, useWays } from "../../api/queries";
import { Sheet } from "../../drawing/Sheet";
import { askGarden, changePlace, editsWrite } from "../../queue/asks";
import { queue } from "../../queue/queue";
import { Bar } from "../../ui/Bar";
import { Faulty } from "../../ui/Faulty";
import { NotHere } from "../../ui/NotHere";
import { Tick } from "../../ui/Tick";
import { useRemembered } from "../../ui/useRemembered";
import { upTo } from "../../ui/upTo";
import { useSettled } from "../../ui/useSettled";
import { Compare } from "./Compare";
import { CostPlot } from "./CostPlot";
import { CropFields, type Grown } from "./CropFields";
import { Divides } from "./Divides";
import { KeepNeed } from "./KeepNeed";
import { NOTHING_SAID, WALL, Wanted, type Wants } from "./Wanted";
import { Ways } from "./Ways";
import { type Where, WhereElse } from "./WhereElse";
import { say } from "../../texts/say";

const NONE: ReadonlySet<string> = new Set();

/** A support for a bed: a new one, or for a need that was kept. */
export function NewSupport() {
  const params = useParams();
  const gardenId = Number(params.gardenId);
  const [search] = useSearchParams();
  const garden = useGarden(gardenId);
  // what is being chosen stays when the garden, known already, cannot be asked for again
  if (!garden.data)
    return garden.isError ? (
      <Faulty error={garden.error} garden={gardenId} />
    ) : (
      <p className="page quiet">{say("common.loading")}</p>
    );
  const wanted = garden.data.needs.find((row) => row.key === search.get("need"));
  const bedKey = params.bedKey ?? "";
  return (
    <Choosing key={`${bedKey}/${wanted?.key ?? ""}`} garden={garden.data} bedKey={bedKey} kept={wanted} />
  );
}

/** What is said of an answer that did not come as it should. */
function said(error: Error): string {
  return error instanceof Refused ? error.message : say("common.theServerDidNotAnswer");
}

const MOST_CROPS = 4; // of one support

interface Row {
  id: number;
  grown: Grown;
  readable: boolean;
}

/** The crop that a kept need leads with; one that was asked for or that most people grow otherwise. */
function grownOf(kept: Grown | undefined, crop: string | null): Grown {
  return {
    crop: kept?.crop ?? crop ?? "tom-slicer",
    side: kept?.side ?? "right",
    training: kept?.training ?? "pruned",
    count: kept?.count ?? null,
  };
}

/** Another crop to begin with: the same again, on the other side. */
function beside(lead: Grown | undefined): Grown {
  return { ...grownOf(lead, null), side: lead?.side === "left" ? "right" : "left", count: null };
}

interface Props {
  garden: Garden;
  bedKey: string;
  kept: Schemas["NeedRow"] | undefined;
}

/**
 * Crop, side and count in, a picture of the support pressed; the whole of it out, drawn, each value with its
 * reason.
 */
function Choosing({ garden, bedKey, kept }: Props) {
  const gardenId = garden.id;
  const catalogue = useCatalogue(garden.units);
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const about = `${gardenId}/${bedKey}/${kept?.key ?? ""}/${search.get("crop") ?? ""}`;
  const [crops, setCrops] = useRemembered<readonly Row[]>(`crops ${about}`, () =>
    [grownOf(kept?.fields, search.get("crop")), ...(kept?.fields.others ?? [])].map((grown, id) => ({
      id,
      grown,
      readable: true,
    })),
  );
  const standing = new Set([...garden.beds, ...garden.features].map((each) => each.key));
  const [where, setWhere] = useRemembered<Where>(`where ${about}`, () => ({
    beds: (kept?.fields.beds ?? search.get("also")?.split(",") ?? []).filter((key) => standing.has(key)),
    host: kept?.fields.host != null && standing.has(kept.fields.host) ? kept.fields.host : null,
  }));
  const [building, setBuilding] = useState(false);
  const [failed, setFailed] = useState("");
  const [wants, setWants] = useRemembered<Wants>(`wants ${about}`, () => kept?.fields.wants ?? NOTHING_SAID);
  // what stands on the bed already is kept unless somebody says otherwise
  const old = garden.structures.filter((row) => row.bed === bedKey);
  const [removed, setRemoved] = useState<readonly string[]>([]);
  const [stopped, setStopped] = useState(false);
  const [pointed, setPointed] = useState("");
  const [compared, setCompared] = useState<readonly string[]>([]);
  // what is written cannot be judged before it is known what is allowed
  const most = catalogue.data?.bounds["planting.count"]?.high;
  const wrongCount = crops.some((row) => !row.readable);
  const [lead, ...others] = crops.map((row) => row.grown);
  const wanted: Schemas["WantedIn"] = {
    ...(lead ?? grownOf(undefined, null)),
    others,
    beds: [...where.beds],
    host: where.host,
  };
  // how many there are does not change their pictures
  const kinds = useSupports(gardenId, bedKey, {
    ...wanted,
    count: null,
    others: others.map((each) => ({ ...each, count: null })),
  });
  const { first } = wants;
  // of some wishes the kinds are sized anew, of others only their order hangs
  const sizedFor = kinds.data?.sized_by.includes(first) ? first : NOTHING_SAID.first;
  const need: Omit<Schemas["ChooseIn"], "closely"> = { ...wanted, wants: { ...wants, first: sizedFor } };
  const supports = kinds.data?.supports ?? [];
  // the address follows a choice a moment later
  const [wished, setWished] = useState(search.get("on"));
  const asked = supports.map((support) => support.family);
  // nothing is asked for while what is wanted is still being written
  const written = JSON.stringify(need);
  const held = useSettled(written) !== written || stopped;
  const looked = useWays(gardenId, bedKey, need, asked, wished, garden.units, garden.number, held);
  const seen = (looks: typeof looked) =>
    new Map(looks.flatMap((way) => (way.data ? [[way.data.family, way.data] as const] : [])));
  const glances = seen(looked.slice(0, supports.length));
  const closely = seen(looked.slice(supports.length));
  // what falls short at first sight may do when it is looked at closely
  const ways = new Map([...[...glances].filter(([, way]) => way.against.length === 0), ...closely]);
  const able = [...ways.values()].filter((way) => way.against.length === 0);
  const order = useOrder(
    gardenId,
    { first, ways: Object.fromEntries(able.map((way) => [way.family, way.figures])) },
    garden.units,
  );
  const places = order.data?.places ?? [];
  const family = wished ?? places[0]?.family ?? "";
  const way = closely.get(family) ?? ways.get(family);
  const started: Schemas["NeedIn"] = {
    ...wanted,
    family,
    shed: wants.shed,
    chosen: way ? { name: way.title, options: way.options, plantings: way.plantings } : null,
  };
  const proposal = useProposal(gardenId, bedKey, started, garden.units);
  const bed = garden.beds.find((each) => each.key === bedKey);
  if (!bed) return <NotHere />;
  const choose = (key: string) => {
    setWished(key);
    setSearch(
      (now) => {
        now.set("on", key);
        return now;
      },
      { replace: true },
    );
  };
  const make = async (seen: Schemas["NeedIn"], page: "" | "/build") => {
    setBuilding(true);
    setFailed("");
    try {
      const made = await askGarden<Schemas["StructureOut"]>(
        gardenId,
        `/beds/${bedKey}/structures`,
        seen,
        say("support.aSupportFor", { name: bed.fields.name }),
      );
      const gone = old.filter((row) => removed.includes(row.key));
      if (gone.length > 0)
        queue.put(
          editsWrite(
            gardenId,
            gone.map(({ key }) => ({ kind: "structure", act: "remove", key, change: {} })),
            say("support.removed", { names: gone.map((row) => row.name).join(", ") }),
          ),
        );
      await navigate(`/structures/${made.id}${page}`);
    } catch (error) {
      setBuilding(false);
      setFailed(say("support.nothingWasSavedTryAgain", { error: said(error as Error) }));
    }
  };
  const changeHour = (hour: number | null) => {
    if (hour === (garden.place.fields.hour ?? null)) return;
    changePlace(gardenId, { hour }, say("support.priceOfAnHourOfWork")).catch((error: unknown) =>
      setFailed(say("support.nothingWasSavedTryAgain", { error: said(error as Error) })),
    );
  };
  const data = way && !proposal.isPlaceholderData ? proposal.data : undefined;
  const report: Report | undefined = data?.report;
  const refused = proposal.error ?? kinds.error;
  // a kind that cannot be calculated is said, and the others go on without it
  const missed = new Map(
    looked.flatMap((each, n) => {
      const kind = asked[n % asked.length];
      return each.error && kind ? [[kind, said(each.error)] as const] : [];
    }),
  );
  const answered = (looks: typeof looked) => looks.filter((each) => !each.isPending || each.error).length;
  const chosen = supports.find((each) => each.family === family);
  const glanced = answered(looked.slice(0, supports.length)) === supports.length && supports.length > 0;
  const ended = answered(looked.slice(supports.length)) === supports.length && supports.length > 0;
  const [upper, lower] = compared.map((key) => ways.get(key));
  // what was asked for is taken as it is after a close look, whatever leads as far as it is known
  const rough = wished === family && !closely.has(family) && !stopped;
  const nothingDoes = ended && able.length === 0 && !way;
  const many = [...ways.values()].reduce((sum, each) => sum + each.size, 0);
  return (
    <>
      <Bar garden={garden}>
        <span className="grow trail">
          <Link to={`/gardens/${gardenId}`}>{garden.name}</Link> / {bed.fields.name}
        </span>
      </Bar>
      <main className="propose">
        <div className="asked">
          <div className="asks">
            <h1 style={{ overflowWrap: "anywhere" }}>
              {kept ? kept.fields.name : say("support.aSupportFor2", { name: bed.fields.name })}
            </h1>
            <p className="quiet" style={{ marginBottom: 14 }}>
              {bed.words}
            </p>
            {(most === undefined ? [] : crops).map((row, number) => (
              <CropFields
                key={row.id}
                row={row.grown}
                number={number}
                crops={catalogue.data?.crops ?? []}
                sides={bed.sides}
                most={most ?? 1}
                onRow={(grown, readable) =>
                  setCrops((now) =>
                    now.map((each) => (each.id === row.id ? { ...row, grown, readable } : each)),
                  )
                }
                {...(number > 0 && {
                  onRemove: () => setCrops((now) => now.filter((each) => each.id !== row.id)),
                })}
              />
            ))}
            {crops.length < MOST_CROPS && (
              <button
                type="button"
                className="plain"
                onClick={() =>
                  setCrops((now) => [
                    ...now,
                    {
                      id: Math.max(...now.map((each) => each.id)) + 1,
                      grown: beside(lead),
                      readable: true,
                    },
                  ])
                }
              >
                {say("support.addAnotherCrop")}
              </button>
            )}
            {refused && (
              <p role="alert" className="refusal">
                {said(refused)}
              </p>
            )}
          </div>
          <div className="verdict">
            <p className="verdictline" aria-live="polite">
              {report ? (
                <>
                  <strong>{way?.title ?? chosen?.name}.</strong>{" "}
                  {say("support.holdsNeeds", {
                    limitText: upTo(report.headline.limit_text),
                    designText: report.headline.required_text,
                    reasons: places.find((each) => each.family === family)?.reasons[0],
                    minds: way?.told.minds,
                  })}{" "}
                  {!ended && <span className="quiet">{say("support.stillCalculatingTheOthers")}</span>}
                </>
              ) : nothingDoes ? (
                say("support.noKindOfSupportWorksHere")
              ) : (
                say("common.calculating")
              )}
            </p>
            {report && kinds.data?.taught_said && <p className="quiet">{kinds.data.taught_said}</p>}
            {nothingDoes && !wants.wall && (
              <Tick label={WALL} checked={false} onTick={() => setWants({ ...wants, wall: true })} />
            )}
            {old.map((row) => (
              <Tick
                key={row.key}
                label={say("support.removeWhichIsOnThisBed", { name: row.name })}
                checked={removed.includes(row.key)}
                onTick={(checked) =>
                  setRemoved((now) => (checked ? [...now, row.key] : now.filter((key) => key !== row.key)))
                }
              />
            ))}
            <Button
              onClick={() => data && void make(data.asked, "/build")}
              disabled={building || !data || wrongCount || rough}
              className="strong"
            >
              {building ? say("support.saving") : say("support.buildThis")}
            </Button>
            <Button
              onClick={() => data && void make(data.asked, "")}
              disabled={building || !data || wrongCount || rough}
            >
              {say("support.changeTheDesignFirst")}
            </Button>
            {failed && (
              <p role="alert" className="refusal">
                {failed}
              </p>
            )}
            {report && (
              <p className="quiet" style={{ margin: "8px 0 0" }}>
                {say("support.partsCostYouCanChangeThe", { costText: report.cost_text })}
              </p>
            )}
          </div>
          <div className="asks more">
            <WhereElse where={where} supports={kinds.data} onWhere={setWhere} />
            <Wanted
              wants={wants}
              units={garden.units}
              gust={bed.gust}
              keptGust={kept?.gust ?? ""}
              keptHeadroom={kept?.headroom ?? ""}
              tools={catalogue.data?.tools ?? []}
              shed={garden.role === "read" ? null : gardenId}
              opened={kept !== undefined}
              currency={garden.place.fields.currency}
              hour={garden.place.fields.hour ?? null}
              onHour={garden.role === "read" ? null : changeHour}
              onWant={(next) => {
                setWants(next);
                setStopped(false);
              }}
            />
            {garden.role !== "read" && (
              <KeepNeed garden={gardenId} bed={bedKey} kept={kept} need={need} first={first} />
            )}
          </div>
        </div>
        <div className="offered">
          <p className="progress quiet" role="status" aria-label={say("support.progress")}>
            {say("support.kindsCalculated", {
              glanced: glanced
                ? say("support.all", { length: supports.length })
                : say("support.of", { size: glances.size, length: supports.length }),
            })}
            {glanced && !ended && say("support.ofThemInFull", { size: closely.size })}
            {say("support.possibleDesigns", {
              designs: many.toLocaleString("en", { notation: "compact", compactDisplay: "long" }),
            })}{" "}
            {!ended && (
              <button type="button" className="plain" onClick={() => setStopped(!stopped)}>
                {stopped ? say("support.continue") : say("support.stop")}
              </button>
            )}
          </p>
          <Ways
            supports={supports}
            ways={ways}
            places={places}
            chosen={family}
            pointed={pointed}
            onChoose={choose}
            onPoint={setPointed}
            kept={compared}
            onKeep={(key) =>
              setCompared((now) =>
                now.includes(key) ? now.filter((each) => each !== key) : [...now.slice(-1), key],
              )
            }
          />
          {[...(kinds.data?.failed ?? []), ...missed.values()].map((words) => (
            <p key={words} className="refusal">
              {words}
            </p>
          ))}
          {upper && lower && <Compare ways={[upper, lower]} />}
          <CostPlot ways={ways} places={places} pointed={pointed} onPoint={setPointed} onChoose={choose} />
          <section aria-busy={proposal.isFetching} aria-label={say("support.whatIsFilledInAndWhy")}>
            {chosen && (
              <p className="kindwords">
                <strong>{way?.title ?? chosen.name}.</strong> {chosen.what}{" "}
                <span className="quiet">
                  {chosen.suits} {chosen.weak}
                </span>
              </p>
            )}
            {report && (
              <div className="offeredsheet">
                <Sheet
                  report={report}
                  week={report.headline.week}
                  wind={0}
                  windText=""
                  lit={NONE}
                  weak={NONE}
                />
              </div>
            )}
            <Divides
              garden={gardenId}
              bed={bedKey}
              units={garden.units}
              sent={
                (ended || stopped) && way && data // what is drawn comes first
                  ? {
                      need: started,
                      first,
                      ways: Object.fromEntries(able.map((each) => [each.family, each.figures])),
                    }
                  : null
              }
            />
            {way && (
              <details className="everyvalue">
                <summary>{say("support.everyValueWithItsReason")}</summary>
                <dl className="reasons">
                  {way.values.map((row) => (
                    <div key={row.option}>
                      <dt>{row.label}</dt>
                      <dd>
                        <strong>{row.value}</strong>
                        <span className="quiet">{row.reason}</span>
                      </dd>
                    </div>
                  ))}
                </dl>
              </details>
            )}
          </section>
        </div>
      </main>
    </>
  );
}
