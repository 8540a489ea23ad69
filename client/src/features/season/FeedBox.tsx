import Button from "@mui/material/Button";
import { useState } from "react";

import { useFeed } from "../../api/season";
import { useFresh } from "../../api/useFresh";
import { askGarden, askFeed } from "../../queue/asks";
import { Tick } from "../../ui/Tick";
import { say } from "../../texts/say";

/** The season in a calendar of one’s own: as a file, or as a feed that goes on being true. */
export function FeedBox({ garden, mayEdit }: { garden: number; mayEdit: boolean }) {
  const feed = useFeed(garden, mayEdit);
  const fresh = useFresh();
  const [copied, setCopied] = useState(false);
  const address = feed.data?.address ? `${window.location.origin}${feed.data.address}` : "";
  const set = (open: boolean) => {
    const done = open ? askGarden(garden, "/feed", {}, say("season.calendarFeedOpened")) : askFeed(garden);
    void done.then(() => fresh.again("feed"));
  };
  const setEntries = (each_task: boolean) =>
    void askGarden(
      garden,
      "/feed/entries",
      { each_task },
      say(each_task ? "season.anEntryForEachTask" : "season.anEntryForEachDay"),
    ).then(() => fresh.again("feed"));
  return (
    <section aria-label={say("season.inYourCalendar")} className="feedbox">
      <h2>{say("season.inYourCalendar")}</h2>
      <p>
        <a href={`/api/gardens/${garden}/season.ics`} download>
          {say("season.theSeasonAsACalendarFile")}
        </a>
        {say("season.asItIsNow")}
      </p>
      {mayEdit && feed.data && (
        <Tick label={say("season.anEntryForEachTask")} checked={feed.data.each_task} onTick={setEntries} />
      )}
      {feed.data?.ended && (
        <p role="alert" className="refusal">
          {feed.data.ended}
        </p>
      )}
      {mayEdit && !address && (
        <p>
          <Button onClick={() => set(true)}>{say("season.makeAFeed")}</Button>{" "}
          <span className="quiet">{say("season.thatYourCalendarAsksByItself")}</span>
        </p>
      )}
      {address && (
        <>
          <p>{say("season.subscribeToThisAddressInYour")}</p>
          <p>
            <input
              className="input"
              readOnly
              aria-label={say("season.addressOfTheFeed")}
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
              {copied ? say("season.copied") : say("season.copy")}
            </Button>{" "}
            <button type="button" className="plain" onClick={() => set(true)}>
              {say("season.makeANewAddress")}
            </button>
            <button type="button" className="plain" onClick={() => set(false)}>
              {say("season.withdrawTheAddress")}
            </button>
          </p>
        </>
      )}
    </section>
  );
}
