import Button from "@mui/material/Button";
import { useState } from "react";

import { useFeed } from "../../api/season";
import { useFresh } from "../../api/useFresh";
import { askGarden, askFeed } from "../../queue/asks";

/** The season in a calendar of one’s own: as a file, or as a feed that goes on being true. */
export function FeedBox({ garden, mayEdit }: { garden: number; mayEdit: boolean }) {
  const feed = useFeed(garden, mayEdit);
  const fresh = useFresh();
  const [copied, setCopied] = useState(false);
  const address = feed.data?.address ? `${window.location.origin}${feed.data.address}` : "";
  const set = (open: boolean) => {
    const done = open ? askGarden(garden, "/feed", {}, "calendar feed opened") : askFeed(garden);
    void done.then(() => fresh.again("feed"));
  };
  return (
    <section aria-label="In your calendar" className="feedbox">
      <h2>In your calendar</h2>
      <p>
        <a href={`/api/gardens/${garden}/season.ics`} download>
          The season as a calendar file
        </a>
        , as it is now.
      </p>
      {feed.data?.ended && (
        <p role="alert" className="refusal">
          {feed.data.ended}
        </p>
      )}
      {mayEdit && !address && (
        <p>
          <Button onClick={() => set(true)}>Make a feed</Button>{" "}
          <span className="quiet">
            that your calendar asks by itself; visits and days that move, move there.
          </span>
        </p>
      )}
      {address && (
        <>
          <p>
            Subscribe to this address in your calendar. Whoever has it can read the season; withdraw it, and
            it leads nowhere.
          </p>
          <p>
            <input
              className="input"
              readOnly
              aria-label="Address of the feed"
              value={address}
              onFocus={(event) => event.target.select()}
            />
          </p>
          <p>
            <Button
              onClick={() => {
                void navigator.clipboard.writeText(address).then(() => setCopied(true));
              }}
            >
              {copied ? "Copied" : "Copy"}
            </Button>{" "}
            <button type="button" className="plain" onClick={() => set(true)}>
              Make a new address
            </button>
            <button type="button" className="plain" onClick={() => set(false)}>
              Withdraw the address
            </button>
          </p>
        </>
      )}
    </section>
  );
}
