import Button from "@mui/material/Button";
import { Link, useParams, useSearchParams } from "react-router";

import { Refused } from "../../api/client";
import { useGarden, useGardenParts, useSession } from "../../api/queries";
import { changePlace } from "../../queue/asks";
import { Choices } from "../../ui/Choices";
import { Currency, UNSAID } from "../../ui/Currency";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { Cautions } from "./Cautions";
import { CutList } from "./CutList";
import { PartsTable } from "./PartsTable";
import { Supplier } from "./Supplier";
import { say } from "../../texts/say";

const LISTED = [
  ["together", say("parts.together")],
  ["structure", say("parts.byStructure")],
] as const;

/** What to buy for the whole garden: together with every pack rounded up once, or structure by structure. */
export function GardenPartsPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const session = useSession();
  const [params, setParams] = useSearchParams();
  const apart = params.get("by") === "structure";
  const parts = useGardenParts(garden.data);
  const failed = garden.error ?? parts.error;
  if (failed) return <Faulty error={failed} garden={id} />;
  if (!garden.data || !parts.data) return <p className="page quiet">{say("common.loading")}</p>;
  const { data } = parts;
  const setPrice = async (key: string, price: number) => {
    try {
      await changePlace(id, { prices: { [key]: price } }, say("parts.priceOf", { key }));
      return "";
    } catch (error) {
      return error instanceof Refused ? error.message : say("common.theServerDidNotAnswer");
    }
  };
  const onPrice = garden.data.role === "read" ? undefined : setPrice;
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page">
        <h1>{say("common.shoppingList")}</h1>
        {data.structures.length === 0 ? (
          <p className="lead">
            {say("parts.thereIsNoSupportInThis")}{" "}
            <Link to={`/gardens/${id}`}>{say("parts.planASupportOnABed")}</Link>
            {say("parts.itsPartsAreListedHere")}
          </p>
        ) : (
          <>
            <p className="quiet">
              {say("parts.supportsBoughtTogetherTheyCostLess", {
                length: data.structures.length,
                savedText: data.saved_text,
              })}
            </p>
            {data.currency === UNSAID && garden.data.role !== "read" && (
              <div className="noprint asked-once">
                <Currency
                  value={data.currency}
                  onPick={(currency) =>
                    void changePlace(id, { currency }, say("parts.pricesIn", { currency }))
                  }
                />
              </div>
            )}
            <div className="noprint actions">
              <Choices
                label={say("parts.howItIsListed")}
                value={apart ? "structure" : "together"}
                choices={LISTED}
                onPick={(by) => setParams(by === "structure" ? { by } : {}, { replace: true })}
              />
              <Button href={`/api/gardens/${id}/parts.csv${apart ? "?by_structure=true" : ""}`}>
                {say("parts.saveAsCsv")}
              </Button>
              {data.cuts.length > 0 && (
                <Button href={`/api/gardens/${id}/cuts.csv`}>{say("parts.saveTheCutList")}</Button>
              )}
              <Button onClick={() => window.print()}>{say("parts.print")}</Button>
            </div>
            {garden.data.role !== "read" && session.data?.supplier && <Supplier garden={id} />}
            {apart ? (
              data.structures.map((each) => (
                <section key={each.id} aria-label={each.name}>
                  <h2 className="partsname">
                    <Link to={`/structures/${each.id}/parts`}>{each.name}</Link>
                  </h2>
                  <PartsTable
                    parts={each.parts}
                    cost={each.cost}
                    currency={data.currency}
                    onPrice={onPrice}
                  />
                </section>
              ))
            ) : (
              <>
                <PartsTable
                  parts={data.together}
                  cost={data.cost}
                  currency={data.currency}
                  shelves={data.shelves}
                  onPrice={onPrice}
                />
                <CutList cuts={data.cuts} />
              </>
            )}
            <Cautions texts={data.cautions} />
          </>
        )}
      </main>
    </>
  );
}
