import { type ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";

import { lostChunk, reloadOnce } from "./reloadOnce";
import { say } from "../texts/say";

interface Props {
  /** What it shows, as the words name it that stand instead when it fails. */
  name: string;
  children: ReactNode;
}

/** A part of a page that may fail alone: the rest of the page stays. */
export function Panel({ name, children }: Props) {
  return (
    <ErrorBoundary
      onError={(error) => {
        if (lostChunk(error)) reloadOnce();
      }}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <p role="alert" className="refusal">
          {say("ui.cannotBeShown", {
            name,
            error: lostChunk(error) ? say("ui.ascentHasBeenUpdatedReloadThe") : say("ui.aProgramError"),
          })}{" "}
          <button type="button" className="plain" onClick={resetErrorBoundary}>
            {say("ui.tryThisAgain", { name })}
          </button>
        </p>
      )}
    >
      {children}
    </ErrorBoundary>
  );
}
