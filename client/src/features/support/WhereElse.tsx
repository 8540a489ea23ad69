import Chip from "@mui/material/Chip";

import type { Schemas } from "../../api/client";
import { Pick } from "../../ui/Pick";
import { say } from "../../texts/say";

export interface Where {
  /** Beds alike that get the same, or the one across a path. */
  beds: readonly string[];
  host: string | null;
}

interface Props {
  where: Where;
  supports: Schemas["SupportsOut"] | undefined;
  onWhere: (where: Where) => void;
}

const MOST = 11;

/** Where else the same is wanted, on beds or pots alike or over the path to one; what it may be fixed to. */
export function WhereElse({ where, supports, onWhere }: Props) {
  const beds = supports?.beds ?? [];
  const hosts = supports?.hosts ?? [];
  const named = (key: string) => {
    const bed = beds.find((each) => each.key === key);
    return bed ? `${bed.name}${bed.path && say("support.aPathOfBetween", { path: bed.path })}` : key;
  };
  const left = beds.filter((bed) => !where.beds.includes(bed.key));
  return (
    <>
      {(left.length > 0 || where.beds.length > 0) && (
        <Pick
          label={say("support.alsoOn")}
          value=""
          choices={[
            {
              key: "",
              name: where.beds.length > 0 ? say("support.anotherBedLikeIt") : say("support.thisOneOnly"),
            },
            ...(where.beds.length < MOST ? left : []).map(({ key }) => ({ key, name: named(key) })),
          ]}
          onPick={(key) => key && onWhere({ ...where, beds: [...where.beds, key] })}
        />
      )}
      {where.beds.length > 0 && (
        <p className="chips">
          {where.beds.map((key) => (
            <Chip
              key={key}
              size="small"
              label={named(key)}
              onDelete={() => onWhere({ ...where, beds: where.beds.filter((each) => each !== key) })}
            />
          ))}
        </p>
      )}
      {(hosts.length > 0 || where.host !== null) && (
        <Pick
          label={say("support.fixedTo")}
          value={where.host ?? ""}
          choices={[{ key: "", name: say("support.nothing") }, ...hosts]}
          onPick={(key) => onWhere({ ...where, host: key || null })}
        />
      )}
    </>
  );
}
